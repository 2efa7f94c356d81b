import { headerValues } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

export const charset = defineCheck({
  id: 'metadata.charset',
  title: 'Character encoding is UTF-8 and declared',
  fault: 'Character encoding is not UTF-8 or not declared',
  severity: 'minor',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'A browser that has to guess shows broken accents.',
  source: 'HTML',
  messages: { expected: 'UTF-8 by header, byte order mark or within the first 1024 bytes' },
  judge(context) {
    return overPages(context, (page) => {
      const { charset: found } = page.evidence;
      const raw = headerValues(page.answer, 'content-type')
        .map((v) => `Content-Type: ${v}`)
        .join('\n');
      return (found === 'utf-8' ? passed : failed)(page.url, {
        found: verbatim(found) ?? commonMessage('nothing'),
        raw,
      });
    });
  },
  recipe: () => ({
    steps: 'Save the pages in UTF-8 and say so first in the head, or in the header.',
    paste: [
      { label: 'First tag in the head', text: '<meta charset="utf-8">' },
      { label: 'Header', text: 'Content-Type: text/html; charset=utf-8' },
    ],
  }),
});
