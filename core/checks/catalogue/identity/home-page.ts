import { finalStatus } from '#core/facts/evidence';
import { serverPage } from '#core/checks/view/page-marks';
import type { ReadPage } from '#core/checks/view/read-page';
import type { SiteView } from '#core/checks/view/site-view';
import { chainText, redirectFault } from '#core/checks/kit/chains';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, EMPTY_SHELL, failed, overSite, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim, type Message } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('identity.home-page', {
  'sample-page': 'a sample page (“{mark}”), titled “{title}”',
  'sign-in-page': 'a sign-in page (“{mark}”), titled “{title}”',
  'server-page': 'the web server’s default page (“{mark}”), titled “{title}”',
  'post-list': 'a list of posts (“{mark}”), titled “{title}”',
  'no-mark': 'no “{homeMark}” on the page titled “{title}”',
  'no-html-page': 'no HTML page',
  'leads-away': 'leads away to {place}',
});

/** What a home page may be instead of the site's own. */
const OTHER_PAGES = [
  ['samplePage', 'sample-page'],
  ['signIn', 'sign-in-page'],
  ['postList', 'post-list'],
] as const;

/** What is wrong with a home page that was read; undefined when nothing is. */
function faultOf(home: ReadPage, view: SiteView, homeMark: string | undefined): Message | undefined {
  const title = home.facts.titles[0]?.text ?? commonMessage('no-title');
  for (const [kind, code] of OTHER_PAGES) {
    const mark = view.markOn(home, kind);
    if (mark) return msg(code, { mark, title });
  }
  const byServer = serverPage(home);
  if (byServer) return msg('server-page', { mark: byServer, title });
  if (homeMark && !home.shell && !home.words.carries(homeMark)) return msg('no-mark', { homeMark, title });
  return undefined;
}

export const homePage = defineCheck({
  id: 'identity.home-page',
  title: 'Home page is the intended one',
  fault: 'Home page is not the intended one',
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
    if (!homeEvidence) return cantTell(commonMessage('home-not-read'), { expected });
    const { chain, url: place } = homeEvidence;
    const status = finalStatus(chain);
    const circle = redirectFault(chain);
    if (circle) return overSite(context, failed(place, { found: verbatim(circle), raw: chainText(chain) }));
    if (status === undefined)
      return cantTell(verbatim(chain.error?.message) ?? commonMessage('home-not-read'), { expected });
    if (!view.within(place)) return overSite(context, failed(place, { found: msg('leads-away', { place }) }));
    if (!home || status !== 200) {
      const found = status === 200 ? msg('no-html-page') : commonMessage('status', { status });
      return overSite(context, failed(place, { found }));
    }
    const fault = faultOf(home, view, brief.homeMark);
    if (fault) return overSite(context, failed(place, { found: fault, raw: home.facts.text.slice(0, 300) }));
    if (home.shell) return overSite(context, unsure(place, EMPTY_SHELL));
    return overSite(
      context,
      passed(place, { found: verbatim(home.facts.titles[0]?.text) ?? commonMessage('no-title') }),
    );
  },
  recipe({ brief }) {
    return {
      steps: `Choose the page made for it as the home page in the site’s reading or publishing settings, publish, and look at the address in a private window.${brief.homeMark ? ` It should show “${brief.homeMark}”.` : ''}`,
    };
  },
});
