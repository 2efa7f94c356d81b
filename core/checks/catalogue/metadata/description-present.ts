import { defineCheck } from '#core/checks/kit/check';
import { intendedPaste } from '#core/checks/kit/intended-paste';
import { madeDescription } from '#core/checks/kit/made-texts';
import { failed, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('metadata.description-present', {
  several: '{allCount} descriptions',
  'empty-description': 'an empty description',
});

export const descriptionPresent = defineCheck({
  id: 'metadata.description-present',
  title: 'Every page has one meta description',
  fault: 'A page has no meta description or several',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Without one, search engines cut a listing together from whatever stands on the page.',
  source: 'HTML',
  messages: { expected: 'exactly one non-empty description' },
  judge(context) {
    return overPages(context, (page) => {
      const all = page.facts.metas.filter((m) => m.name === 'description');
      const raw = all.map((m) => m.raw).join('\n');
      if (!all.length) return failed(page.url, { found: commonMessage('none') });
      if (all.length > 1) return failed(page.url, { found: msg('several', { allCount: all.length }), raw });
      if (!all[0]!.content.trim()) return failed(page.url, { found: msg('empty-description'), raw });
      return passed(page.url, { found: verbatim(all[0]!.content), raw });
    });
  },
  recipe: (context, finding) => ({
    steps:
      'Write one for each page: what a visitor finds there, with the name, in 80 to 150 characters. The first sentences of the page are a start.',
    paste: intendedPaste(context, finding, ['description'], (url) =>
      madeDescription(context.view.byUrl.get(url), context),
    ),
  }),
});
