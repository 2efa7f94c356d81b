import { finalStatus } from '#core/facts/evidence';
import { where, type Check } from '#core/checks/kit/check';
import { failed, overSite, passed, cantTell } from '#core/checks/kit/judgement';

export const noHoldingPage: Check = {
  id: 'indexing.no-holding-page',
  section: 'indexing',
  title: 'The holding page is gone',
  severity: 'blocker',
  situations: where('L'),
  scope: 'site',
  needs: 'pages',
  why: 'After the launch everybody who is in charge is signed in and sees the site; visitors may still see the holding page.',
  source: 'common practice',
  judge({ view }) {
    const expected = 'the site itself';
    const home = view.homeEvidence;
    const status = home ? finalStatus(home.chain) : undefined;
    if (!home || status === undefined) return cantTell('the home page was not read', { expected });
    const mark = view.markOn(view.home, 'holding');
    if (mark)
      return overSite(
        failed(home.url, { found: `a holding page (“${mark}”)`, raw: view.home!.facts.text.slice(0, 300) }),
        { expected },
      );
    if (status === 503) return overSite(failed(home.url, { found: 'status 503' }), { expected });
    return overSite(passed(home.url, { found: view.home?.facts.titles[0]?.text ?? `status ${status}` }), {
      expected,
    });
  },
  recipe: () => ({
    steps:
      'Switch off the holding or maintenance page, publish, empty the caches, and look in a private window where you are not signed in.',
  }),
};
