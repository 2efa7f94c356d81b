import { finalStatus, type HostEvidence } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, overPlaces, passed, unsure } from '#core/checks/kit/judgement';

function judgeHost(host: HostEvidence, { situation, evidence }: CheckContext): PlaceResult {
  const first = host.https.hops[0];
  const error =
    first?.error ??
    (host.https.hops.length ? undefined : host.https.error) ??
    (first?.status === undefined ? host.tls.error : undefined);
  if (error && first?.status === undefined) {
    if (error.code === 'no-name' || error.code === 'no-address' || error.code === 'dns')
      return unsure(host.host, `rests on domain.resolves: ${error.message}`);
    if (error.code === 'forbidden-address' || error.code === 'stopped' || error.code === 'too-large')
      return unsure(host.host, error.message);
    if (error.code === 'timeout' && evidence.target.wayIn === 'addresses')
      return unsure(host.host, 'no answer in time, and only certain addresses may enter');
    return failed(host.host, { found: error.message });
  }
  // a redirect is an answer: where it leads is the business of other checks
  const status = first!.status!;
  if (status === 503 && situation === 'holding')
    return passed(host.host, { found: '503, as a holding page may' });
  if (situation !== 'staging' && (status === 401 || status === 403 || status === 429))
    return unsure(host.host, `the server refused the visitor (${status})`);
  if (status < 500) return passed(host.host, { found: `${status} over ${host.tls.protocol ?? 'TLS'}` });
  const final = finalStatus(host.https);
  return failed(host.host, { found: `status ${final ?? status}` });
}

export const answers = defineCheck({
  id: 'https.answers',
  title: 'The host answers over HTTPS',
  severity: 'blocker',
  situations: ['staging', 'holding', 'live'],
  scope: 'host',

  why: 'Browsers try https first; a host that is silent there is down for most visitors.',
  source: 'RFC 9110',
  messages: { expected: 'an answer over TLS with a status below 500' },
  judge: (context) =>
    overPlaces(
      context,
      context.view.hosts.map((h) => judgeHost(h, context)),
    ),
  recipe: ({ profile }) => ({
    steps: `Switch HTTPS on for this host name at the host${profile.name ? ` (${profile.name})` : ''}, wait until its certificate is issued, and look that port 443 is open.`,
  }),
});
