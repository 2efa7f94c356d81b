import { finalStatus } from '#core/facts/evidence';
import type { ReadPage } from '#core/checks/view/read-page';
import type { SiteView } from '#core/checks/view/site-view';
import { chainText, redirectFault } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, EMPTY_SHELL, failed, overSite, passed, unsure } from '#core/checks/kit/judgement';

/** What a home page may be instead of the site's own. */
const OTHER_PAGES = [
  ['samplePage', 'a sample page'],
  ['signIn', 'a sign-in page'],
  ['postList', 'a list of posts'],
] as const;

/** What is wrong with a home page that was read; undefined when nothing is. */
function faultOf(home: ReadPage, view: SiteView, homeMark: string | undefined): string | undefined {
  const title = home.facts.titles[0]?.text ?? 'no title';
  for (const [kind, words] of OTHER_PAGES) {
    const mark = view.markOn(home, kind);
    if (mark) return `${words} (“${mark}”), titled “${title}”`;
  }
  if (homeMark && !home.shell && !home.words.carries(homeMark))
    return `no “${homeMark}” on the page titled “${title}”`;
  return undefined;
}

export const homePage = defineCheck({
  id: 'identity.home-page',
  title: 'Home page is the intended one',
  severity: 'blocker',
  situations: ['staging', 'live'],
  scope: 'site',
  needs: { pages: true },
  why: 'A new site often starts on a post list, a sample page or a sign-in form instead of the page that was made for it.',
  source: 'common practice',
  messages: {
    expected: ({ brief }) =>
      brief.homeMark ? `200 and “${brief.homeMark}” on the page` : '200 and the site’s own home page',
  },
  judge(context) {
    const { brief, view } = context;
    const { home, homeEvidence } = view;
    const { expected } = context.words;
    if (!homeEvidence) return cantTell('the home page was not read', { expected });
    const { chain, url: place } = homeEvidence;
    const status = finalStatus(chain);
    const circle = redirectFault(chain);
    if (circle) return overSite(context, failed(place, { found: circle, raw: chainText(chain) }));
    if (status === undefined)
      return cantTell(chain.error?.message ?? 'the home page was not read', { expected });
    if (!view.within(place)) return overSite(context, failed(place, { found: `leads away to ${place}` }));
    if (!home || status !== 200) {
      const found = status === 200 ? 'no HTML page' : `status ${status}`;
      return overSite(context, failed(place, { found }));
    }
    const fault = faultOf(home, view, brief.homeMark);
    if (fault) return overSite(context, failed(place, { found: fault, raw: home.facts.text.slice(0, 300) }));
    if (home.shell) return overSite(context, unsure(place, EMPTY_SHELL));
    return overSite(context, passed(place, { found: home.facts.titles[0]?.text ?? 'no title' }));
  },
  recipe({ brief }) {
    return {
      steps: `Choose the page made for it as the home page in the site’s reading or publishing settings, publish, and look at the address in a private window.${brief.homeMark ? ` It should show “${brief.homeMark}”.` : ''}`,
    };
  },
});
