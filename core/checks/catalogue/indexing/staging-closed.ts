import { hostOf } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import { finalStatus, lastAnswer, type Chain } from '#core/facts/evidence';
import { isUnresolved } from '#core/checks/kit/chains';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed, untested } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import type { Message } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('indexing.staging-closed', {
  'launch-unknown': 'whether the site is launched is not said',
  gone: 'gone: {why}',
  'answers-gone': 'gone ({status})',
  locked: 'locked ({status})',
  'site-not-launched-yet': 'the site is not launched yet',
});

/**
 * How an environment before the live one was closed after the launch; undefined while it is open or nobody can tell.
 */
export function closedAs({
  view,
  evidence,
  brief,
}: Pick<CheckContext, 'view' | 'evidence' | 'brief'>): Message | undefined {
  if (view.shutDoor) return view.shutDoor;
  const home = view.homeEvidence;
  const error = home?.chain.error ?? evidence.hosts[0]?.https.error;
  if (error && (isUnresolved(error.code) || error.code === 'refused'))
    return msg('gone', { why: error.message });
  return home && closedByAnswer(home.chain, brief);
}

/** What the answer to the home address says of it. */
function closedByAnswer(chain: Chain, { preferredHost, otherHosts = [] }: Brief): Message | undefined {
  const status = finalStatus(chain);
  if (status === 404 || status === 410) return msg('answers-gone', { status });
  if (status === 401 || status === 403) return msg('locked', { status });
  const end = lastAnswer(chain)?.url;
  const live = new Set([preferredHost, ...otherHosts]);
  return end && live.has(hostOf(end)) ? commonMessage('leads-to', { url: end }) : undefined;
}

export const stagingClosed = defineCheck({
  id: 'indexing.staging-closed',
  title: 'Staging is closed after the launch',
  fault: 'Staging is open after the launch',
  severity: 'major',
  situations: ['staging'],
  scope: 'site',
  reads: ['http', 'pages'],
  why: 'A forgotten copy is found by search engines and by people who then order from last year’s price list.',
  source: 'common practice',
  messages: { expected: 'locked, gone, or leading to the live site' },
  judge(context) {
    const { launched, view, evidence } = context;
    if (launched === undefined) return untested(msg('launch-unknown'));
    if (!launched) return inapplicable(msg('site-not-launched-yet'));
    const { expected } = context.words;
    const how = closedAs(context);
    if (how) return overSite(context, passed(evidence.target.url, { found: how }));
    if (!view.home) return cantTell(view.rootCause()?.reason ?? commonMessage('home-not-read'), { expected });
    return overSite(context, failed(evidence.target.url, { found: commonMessage('open-to-everybody') }));
  },
  recipe: ({ brief }) => ({
    steps: 'Take the environment down, ask for a password, or let it lead to the live site.',
    paste: brief.preferredHost
      ? [
          { label: 'nginx', text: `return 301 https://${brief.preferredHost}$request_uri;` },
          { label: 'Apache', text: `Redirect permanent / https://${brief.preferredHost}/` },
        ]
      : undefined,
  }),
});
