import { finalStatus } from '#core/facts/evidence';
import { refuses } from '#core/checks/kit/chains';
import { normaliseUrl } from '#core/extract/address';
import { validLanguageTag } from '#core/checks/kit/language-tag';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.alternates', {
  'invalid-tag': 'hreflang “{hreflang}” is no valid language tag',
  'target-status': '{url} answers {status}',
  'does-not-point-back': '{url} does not point back',
});

export const alternates = defineCheck({
  id: 'indexing.alternates',
  title: 'hreflang sets are complete and mutual',
  fault: 'hreflang set is incomplete or one-sided',
  severity: 'minor',
  situations: ['live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Alternates that are not returned are passed over, and readers get the wrong language.',
  source: 'BCP 47 (RFC 5646); HTML; common practice',
  messages: {
    expected: 'valid language tags, absolute addresses, returned by the other side',
    none: 'no page names an alternate',
  },
  judge(context) {
    const { view } = context;
    return overPages(context, (page) => {
      const links = page.alternates;
      if (!links.length) return null;
      for (const link of links) {
        const valid = link.hreflang!.toLowerCase() === 'x-default' || validLanguageTag(link.hreflang!);
        if (!valid)
          return failed(page.url, {
            found: msg('invalid-tag', { hreflang: link.hreflang }),
            raw: link.raw,
          });
        const url = normaliseUrl(link.href);
        if (!url || link.relative)
          return failed(page.url, {
            found: commonMessage('not-absolute', { given: link.href }),
            raw: link.raw,
          });
        const other = view.byUrl.get(url);
        const answer = view.asked.get(url);
        const status = answer && finalStatus(answer.chain);
        if (status !== undefined && status >= 400 && status < 500 && !refuses(status))
          return failed(page.url, { found: msg('target-status', { url, status }), raw: link.raw });
        if (!other || other === page) continue;
        if (!other.alternates.some((l) => normaliseUrl(l.href) === page.url))
          return failed(page.url, { found: msg('does-not-point-back', { url }), raw: link.raw });
      }
      return passed(page.url, { found: verbatim(links.map((l) => l.hreflang).join(', ')) });
    });
  },
  recipe: (_, finding) => ({
    steps: 'Every page of the group names all of them, itself included, with the same tags.',
    paste: [
      {
        label: 'Tags',
        text: failedPlaces(finding, 5)
          .map((p) => `<link rel="alternate" hreflang="…" href="${p.place}">`)
          .join('\n'),
      },
    ],
  }),
});
