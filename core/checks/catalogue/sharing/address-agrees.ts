import { normaliseUrl } from '#core/extract/address';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, overPages, passed } from '#core/checks/kit/judgement';
import { verbatim } from '#core/facts/message';

export const addressAgrees = defineCheck({
  id: 'sharing.address-agrees',
  title: 'og:url is the canonical',
  fault: 'og:url is not the canonical',
  severity: 'minor',
  situations: ['live'],
  scope: 'page',
  needs: { pages: true },
  why: 'Where the two differ, likes and shares are counted for another address.',
  source: 'Open Graph protocol',
  messages: { expected: 'og:url equal to the canonical', none: 'no page has both og:url and a canonical' },
  judge: (context) =>
    overPages(context, (page) => {
      const meta = page.openGraph('og:url');
      const canonical = page.canonical;
      if (!meta?.content || !canonical) return null;
      return (normaliseUrl(meta.content) === canonical ? passed : failed)(page.url, {
        found: verbatim(meta.content),
        expected: canonical,
        raw: meta.raw,
      });
    }),
  recipe: (_, finding) => ({
    steps: 'Let both come from the same setting, the site’s address.',
    paste: failedPlaces(finding, 10).map((p) => ({
      label: p.place,
      text: `<meta property="og:url" content="${p.expected}">`,
    })),
  }),
});
