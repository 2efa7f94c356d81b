import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, failedPlaces, inapplicable, overPlaces } from '#core/checks/kit/judgement';
import { isHidden } from './wanted-pages';
import { isAside } from './aside';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('indexing.sitemap-complete', {
  'no-addresses': 'there is no sitemap with addresses; indexing.sitemap-found says so',
  'no-page-links': 'no page links to it',
  'not-in-sitemap': 'not in the sitemap',
});

const NOT_IN_SITEMAP = msg('not-in-sitemap').code;

export const sitemapComplete = defineCheck({
  id: 'indexing.sitemap-complete',
  title: 'Sitemap and links name the same pages',
  fault: 'Sitemap and links name different pages',
  severity: 'minor',
  situations: ['live'],
  scope: 'page',
  facts: ['sitemaps'],
  reads: ['files'],
  needs: { pages: true },
  why: 'A page that only one of the two knows is found late, or by nobody.',
  source: 'common practice',
  messages: { expected: 'every page that may be listed in both', none: 'no page may be listed' },
  judge(context) {
    const { evidence, view, brief } = context;
    const listed = view.inSitemap;
    if (!listed.size) return inapplicable(msg('no-addresses'));
    // what scripts would fill in may link to it
    const shells = view.pages.some((p) => p.shell);
    const places: PlaceResult[] = view.countable.flatMap((p) => {
      if (listed.has(p.url))
        return p === view.home || view.linked.has(p.url)
          ? [p.passed]
          : evidence.unread.length || shells
            ? []
            : [failed(p.url, { found: msg('no-page-links') })];
      const isLinked = p === view.home || p.evidence.via === 'brief' || p.evidence.via === 'link';
      if (!isLinked) return [];
      return isAside(p.url) || isHidden(p, brief) ? [] : [failed(p.url, { found: msg('not-in-sitemap') })];
    });
    return overPlaces(context, places);
  },
  recipe: (_, finding) => ({
    steps: 'Have the sitemap written anew, and link pages that only it knows from a page beside them.',
    paste: [
      {
        label: 'Sitemap',
        text:
          finding.places
            .filter((p) => p.code === NOT_IN_SITEMAP)
            .slice(0, 50)
            .map((p) => `<url><loc>${p.place}</loc></url>`)
            .join('\n') ||
          failedPlaces(finding)
            .map((p) => p.place)
            .join('\n'),
      },
    ],
  }),
});
