import { finalStatus, type HostEvidence, type NetworkError } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { isUnresolved, refuses, restsOn } from '#core/checks/kit/chains';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, overPlaces, passed, unaskedHosts, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('https.answers', {
  'certain-addresses-only': 'no answer in time, and only certain addresses may enter',
  challenge: 'the server wants proof of a person (503)',
  '503-as-holding-page-may': '503, as a holding page may',
  '503-as-closed-environment-may': '503, as a closed environment may',
  'status-over-tls': '{status} over {protocol}',
});

/** A host that gave no answer at all. */
function judgeSilence(host: string, error: NetworkError, { view, evidence }: CheckContext): PlaceResult {
  const { code, message } = error;
  const { wayIn } = evidence.target;
  if (isUnresolved(code) || code === 'dns') return unsure(host, restsOn(error, view));
  if (code === 'forbidden-address' || code === 'stopped' || code === 'too-large')
    return unsure(host, verbatim(message));
  if (code === 'timeout' && wayIn === 'addresses') return unsure(host, msg('certain-addresses-only'));
  return failed(host, { found: verbatim(message) });
}

/** What a host that answered 503 says by it. */
function judgeUnavailable(host: HostEvidence, { situation, view }: CheckContext): PlaceResult {
  if (view.refusedAt(host) === 'challenge') return unsure(host.host, msg('challenge'));
  if (situation === 'holding') return passed(host.host, { found: msg('503-as-holding-page-may') });
  if (situation === 'staging') return passed(host.host, { found: msg('503-as-closed-environment-may') });
  return failed(host.host, { found: commonMessage('status', { status: 503 }) });
}

function judgeHost(evidence: HostEvidence, context: CheckContext): PlaceResult {
  const { host, https, tls } = evidence;
  const { situation } = context;
  const first = https.hops[0];
  // a redirect is an answer: where it leads is the business of other checks
  const status = first?.status;
  if (status === undefined) {
    const error = first?.error ?? (first ? undefined : https.error) ?? tls.error;
    return error ? judgeSilence(host, error, context) : unsure(host, commonMessage('not-asked'));
  }
  if (status === 503) return judgeUnavailable(evidence, context);
  if (situation !== 'staging' && refuses(status)) return unsure(host, commonMessage('refused', { status }));
  if (status < 500)
    return passed(host, { found: msg('status-over-tls', { status, protocol: tls.protocol ?? 'TLS' }) });
  return failed(host, { found: commonMessage('status', { status: finalStatus(https) ?? status }) });
}

export const answers = defineCheck({
  id: 'https.answers',
  title: 'Every host answers over HTTPS',
  fault: 'A host does not answer over HTTPS',
  severity: 'blocker',
  situations: ['staging', 'holding', 'live'],
  scope: 'host',
  reads: ['tls', 'http'],
  why: 'Browsers try https first; a host that is silent there is down for most visitors.',
  source: 'RFC 9110',
  messages: { expected: 'an answer over TLS with a status below 500' },
  judge: (context) =>
    overPlaces(context, [
      ...context.view.hosts.map((h) => judgeHost(h, context)),
      ...unaskedHosts(context.view),
    ]),
  recipe: ({ profile }) => ({
    steps: `Switch HTTPS on for this host name at the host${profile.name ? ` (${profile.name})` : ''}, wait until its certificate is issued, and look that port 443 is open.`,
  }),
});
