import { finalStatus } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, overSite, passed } from '#core/checks/kit/judgement';
import { sentences } from '#core/text/sentences';
import { seen } from '#core/facts/said';
import { saysOfAll } from '#core/text/says';

const says = sentences('indexing.no-holding-page', {
  'holding-page': 'a holding page (“{mark}”)',
});

export const noHoldingPage = defineCheck({
  id: 'indexing.no-holding-page',
  title: 'Holding page is off the live host',
  fault: 'Holding page is on the live host',
  severity: 'blocker',
  situations: ['live'],
  scope: 'site',
  needs: { pages: true },
  why: 'After the launch everybody who is in charge is signed in and sees the site; visitors may still see the holding page.',
  source: 'common practice',
  messages: { expected: 'the site itself' },
  judge(context) {
    const { view } = context;
    const { expected } = context.words;
    const home = view.homeEvidence;
    const status = home ? finalStatus(home.chain) : undefined;
    if (!home || status === undefined) return cantTell(saysOfAll('home-not-read'), { expected });
    const mark = view.markOn(view.home, 'holding');
    if (mark)
      return overSite(
        context,
        failed(home.url, { found: says('holding-page', { mark }), raw: view.home!.facts.text.slice(0, 300) }),
      );
    if (status === 503)
      return overSite(context, failed(home.url, { found: saysOfAll('status', { status: 503 }) }));
    return overSite(
      context,
      passed(home.url, { found: seen(view.home?.facts.titles[0]?.text) ?? saysOfAll('status', { status }) }),
    );
  },
  recipe: () => ({
    steps:
      'Switch off the holding or maintenance page, publish, empty the caches, and look in a private window where you are not signed in.',
  }),
});
