import { normaliseUrl } from '#core/extract/address';
import { where, type Check } from '#core/checks/kit/check';
import { failed, overPages, passed } from '#core/checks/kit/judgement';

export const addressAgrees: Check = {
  id: 'sharing.address-agrees',
  section: 'sharing',
  title: 'og:url is the canonical',
  severity: 'minor',
  situations: where('L'),
  scope: 'page',
  needs: 'pages',
  why: 'Where the two differ, likes and shares are counted for another address.',
  source: 'Open Graph protocol',
  judge: (context) =>
    overPages(
      context,
      'og:url equal to the canonical',
      (page) => {
        const meta = page.openGraph('og:url');
        const canonical = page.canonical;
        if (!meta?.content || !canonical) return null;
        return (normaliseUrl(meta.content) === canonical ? passed : failed)(page.url, {
          found: meta.content,
          expected: canonical,
          raw: meta.raw,
        });
      },
      { none: 'no page has both og:url and a canonical' },
    ),
  recipe: (_, finding) => ({
    steps: 'Let both come from the same setting, the site’s address.',
    paste: finding.places
      .filter((p) => p.outcome === 'failed')
      .slice(0, 10)
      .map((p) => ({ label: p.place, text: `<meta property="og:url" content="${p.expected}">` })),
  }),
};
