import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage, restsOnCheck } from '#core/text/common-messages';

const msg = defineMessages('indexing.no-holding-page', {
  'holding-page': 'a holding page (“{mark}”)',
});

export const noHoldingPage = defineCheck({
  id: 'indexing.no-holding-page',
  title: 'Holding page is off the live host',
  fault: 'Holding page is on the live host',
  severity: 'blocker',
  situations: ['live'],
  scope: 'site',
  reads: ['pages', 'http'],
  why: 'After the launch everybody who is in charge is signed in and sees the site; visitors may still see the holding page.',
  source: 'common practice',
  messages: { expected: 'the site itself' },
  judge(context) {
    const { view } = context;
    const { expected } = context.words;
    const cause = view.rootCause();
    if (cause && cause.check !== 'indexing.no-holding-page')
      return cantTell(restsOnCheck(cause.check, cause.reason), { expected });
    const home = view.homeEvidence;
    const status = home ? finalStatus(home.chain) : undefined;
    if (!home || status === undefined) return cantTell(commonMessage('home-not-read'), { expected });
    const mark = view.markOn(view.home, 'holding') ?? view.heldBack;
    if (mark)
      return overSite(
        context,
        failed(home.url, { found: msg('holding-page', { mark }), raw: home.facts?.text.slice(0, 300) }),
      );
    return overSite(
      context,
      passed(home.url, {
        found: verbatim(view.home?.facts.titles[0]?.text) ?? commonMessage('status', { status }),
      }),
    );
  },
  recipe: () => ({
    steps:
      'Switch off the holding or maintenance page, publish, empty the caches, and look in a private window where you are not signed in.',
  }),
});
