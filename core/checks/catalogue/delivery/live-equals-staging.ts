import { faceOf, pathBelow, type Compared, type Ground } from '#core/compare/sites/page-face';
import { defineCheck } from '#core/checks/kit/check';
import { SiteView } from '#core/checks/view/site-view';
import { cantTell, failed, inapplicable, overPlaces } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('delivery.live-equals-staging', {
  'left-behind-on-purpose': 'left behind on purpose: {stagingHosts}',
  'not-compared': 'there is no audit of staging to compare with',
  'staging-not-read': 'staging could not be read when it was audited',
  'differs-from-staging': 'other {differing} than on staging',
});

/** What a visitor meets. */
const MET: readonly Compared[] = ['title', 'description', 'headings', 'text', 'links'];

/** Why nothing could be compared yet. */
export const NOT_COMPARED = msg('not-compared');

export const liveEqualsStaging = defineCheck({
  id: 'delivery.live-equals-staging',
  title: 'Live pages are those approved on staging',
  fault: 'A live page differs from what was approved on staging',
  severity: 'minor',
  situations: ['live'],
  scope: 'page',
  needs: { pages: true },
  why: 'What the client said yes to is what should be there.',
  source: 'common practice',
  messages: {
    expected: 'title, description, headings, text and links as on staging',
    none: 'no page stands in both environments',
  },
  judge(context) {
    const { view, brief, staging, profile, evidence } = context;
    if (brief.notWanted?.stagingHosts)
      return inapplicable(msg('left-behind-on-purpose', { stagingHosts: brief.notWanted.stagingHosts }));
    if (!staging) return cantTell(NOT_COMPARED);
    const other = new SiteView(staging, brief, profile, 'staging');
    if (!other.pages.length) return cantTell(msg('staging-not-read'));
    const hosts = new Set([...view.siteHosts, ...other.siteHosts]);
    const there: Ground = { base: staging.target.url, hosts };
    const here: Ground = { base: view.home?.url ?? evidence.target.url, hosts };
    const before = new Map(other.pages.map((p) => [pathBelow(p.url, there.base), p]));
    const places = view.pages.flatMap((page) => {
      const twin = before.get(pathBelow(page.url, here.base));
      if (!twin) return [];
      const now = faceOf(page.facts, here, page.url);
      const then = faceOf(twin.facts, there, twin.url);
      const text = (what: Compared, face: typeof now): string => face[what].join('\n');
      const differing = MET.filter((what) => text(what, now) !== text(what, then));
      const [first] = differing;
      return [
        first
          ? failed(page.url, {
              found: msg('differs-from-staging', { differing: differing.join(', ') }),
              expected: text(first, then).slice(0, 300),
              raw: text(first, now).slice(0, 300),
            })
          : page.passed,
      ];
    });
    return overPlaces(context, places);
  },
  recipe: () => ({
    steps:
      'Look which of the two is right: publish staging again, or note in the brief that staging was left behind on purpose.',
  }),
});
