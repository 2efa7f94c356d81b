import type { PlaceResult } from '#core/facts/finding';
import { where, type Check } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces } from '#core/checks/kit/judgement';
import { isHidden } from './wanted-pages';
import { isAside } from './aside';

export const sitemapComplete: Check = {
  id: 'indexing.sitemap-complete',
  section: 'indexing',
  title: 'Sitemap and links know the same pages',
  severity: 'minor',
  situations: where('L'),
  scope: 'page',
  needs: 'pages',
  why: 'A page that only one of the two knows is found late, or by nobody.',
  source: 'common practice',
  judge({ evidence, view, brief }) {
    const listed = view.inSitemap;
    if (!listed.size)
      return inapplicable('there is no sitemap with addresses; indexing.sitemap-found says so');
    // what scripts would fill in may link to it
    const shells = view.pages.some((p) => p.shell);
    const places: PlaceResult[] = view.countable.flatMap((p) => {
      if (listed.has(p.url))
        return p === view.home || view.linked.has(p.url)
          ? [p.passed]
          : evidence.unread.length || shells
            ? []
            : [failed(p.url, { found: 'no page links to it' })];
      if (!p.evidence.from && p !== view.home && p.evidence.via !== 'brief') return [];
      return isAside(p.url) || isHidden(p, brief) ? [] : [failed(p.url, { found: 'not in the sitemap' })];
    });
    return overPlaces(places, {
      expected: 'every page that may be listed in both',
      unit: ['page', 'pages'],
      none: 'no page may be listed',
    });
  },
  recipe: (_, finding) => ({
    steps: 'Have the sitemap written anew, and link pages that only it knows from a page beside them.',
    paste: [
      {
        label: 'Sitemap',
        text:
          finding.places
            .filter((p) => p.found === 'not in the sitemap')
            .slice(0, 50)
            .map((p) => `<url><loc>${p.place}</loc></url>`)
            .join('\n') ||
          finding.places
            .filter((p) => p.outcome === 'failed')
            .map((p) => p.place)
            .join('\n'),
      },
    ],
  }),
};
