import { finalStatus } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPlaces, passed, unsure } from '#core/checks/kit/judgement';

export const linksAnswer = defineCheck({
  id: 'indexing.links-answer',
  title: 'Links inside the site lead somewhere',
  severity: 'major',
  situations: ['staging', 'live'],
  scope: 'link',
  needs: { pages: true },
  why: 'A dead link is the fault that visitors meet themselves.',
  source: 'RFC 9110 15.5',
  messages: { expected: 'a status below 400', none: 'the pages have no links' },
  judge(context) {
    const { view } = context;
    const places = view.followed.flatMap(({ url, chain, page, anchor }): PlaceResult[] => {
      const status = finalStatus(chain);
      const where = page.url === url ? '' : `, linked from ${page.url}`;
      if (status === undefined)
        return [
          chain.error?.code === 'no-name' ||
          chain.error?.code === 'refused' ||
          chain.error?.code === 'redirect-loop'
            ? failed(url, { found: `${chain.error.message}${where}`, raw: anchor.raw })
            : unsure(url, chain.error?.message ?? 'no answer'),
        ];
      if ([401, 403, 429].includes(status) || (status === 503 && view.refusals.some((r) => r.url === url)))
        return [unsure(url, `the server refused the visitor (${status})`)];
      // a 5xx is delivery.no-server-errors' business
      if (status >= 500) return [];
      return [status < 400 ? passed(url) : failed(url, { found: `${status}${where}`, raw: anchor.raw })];
    });
    return overPlaces(context, places);
  },
  recipe: (_, finding) => ({
    steps: 'Mend or take out these links; where the page has moved, let its old address redirect.',
    paste: [
      {
        label: 'Links',
        text: failedPlaces(finding, 50)
          .map((p) => `${p.place} (${p.found})`)
          .join('\n'),
      },
    ],
  }),
});
