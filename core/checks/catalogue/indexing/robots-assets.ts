import { hostOf } from '#core/extract/address';
import { mayFetch } from '#core/extract/robots';
import { where, type Check } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';

export const robotsAssets: Check = {
  id: 'indexing.robots-assets',
  section: 'indexing',
  title: 'Scripts and styles may be fetched',
  severity: 'minor',
  situations: where('L'),
  scope: 'asset',
  needs: 'pages',
  why: 'Search engines that may not fetch them judge the page without its layout.',
  source: 'common practice',
  judge({ evidence, view }) {
    const { facts } = evidence.robots;
    if (!facts) return inapplicable('there is no robots.txt that forbids anything');
    // robots.txt speaks for its own host alone (RFC 9309 2.3)
    const host = hostOf(evidence.robots.chain.hops.at(-1)?.url ?? evidence.robots.chain.start);
    const files = evidence.assets.filter(
      (a) => (a.roles.includes('script') || a.roles.includes('style')) && hostOf(a.url) === host,
    );
    return overPlaces(
      files.map((a) => {
        const { allowed, rule } = mayFetch(facts, '*', a.url);
        return allowed ? passed(a.url) : failed(a.url, { found: 'disallowed', raw: rule?.raw });
      }),
      {
        expected: 'allowed for everyone',
        unit: ['file', 'files'],
        none: view.pages.length ? 'the pages load no script or style of their own' : undefined,
      },
    );
  },
  recipe: (_, finding) => ({
    steps: 'Allow these folders beside the rule that shuts them.',
    paste: [
      {
        label: 'robots.txt',
        text: [
          ...new Set(
            finding.places
              .filter((p) => p.outcome === 'failed')
              .map((p) => `Allow: ${new URL(p.place).pathname}`),
          ),
        ].join('\n'),
      },
    ],
  }),
};
