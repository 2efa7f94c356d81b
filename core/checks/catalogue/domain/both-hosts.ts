import { registrableDomain } from '#core/extract/address';
import { finalStatus, type Chain } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import type { Situation } from '#core/facts/situation';
import { isUnresolved, redirectFault, refuses, restsOn } from '#core/checks/kit/chains';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, failedPlaces, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';

function judgeHost(host: string, { view, situation }: CheckContext): PlaceResult {
  const h = view.evidence.hosts.find((one) => one.host === host && one.role !== 'staging');
  if (!h) return unsure(host, 'audit again: it was not looked at');
  // nobody has set a record for it, and the brief does not name it, so that no other check minds
  const error = h.https.error ?? h.http.error;
  if (h.role === 'implied' && isUnresolved(error?.code)) return failed(host, { found: error!.message });
  const chain = [h.https, h.http].find((c) => c.end === 'answer');
  const status = chain && finalStatus(chain);
  if (status === undefined) {
    const circle = redirectFault(h.https) ?? redirectFault(h.http);
    return circle ? failed(host, { found: circle }) : unsure(host, restsOn(error, view));
  }
  if (view.isAstray(h)) return unsure(host, 'rests on domain.connected: a parking or unknown-name page');
  return judgeAnswer(host, status, chain!, situation);
}

function judgeAnswer(host: string, status: number, chain: Chain, situation: Situation): PlaceResult {
  if (refuses(status)) return unsure(host, `the server refused the visitor (${status})`);
  return status < 400 || (status === 503 && situation === 'holding')
    ? passed(host, { found: `${status} ${chain.hops.at(-1)!.url}` })
    : failed(host, { found: `status ${status}` });
}

export const bothHosts = defineCheck({
  id: 'domain.both-hosts',
  title: 'Apex and www both answer',
  severity: 'major',
  situations: ['holding', 'live'],
  scope: 'host',
  reads: ['http'],
  why: 'Half of those who type the address type the other form.',
  source: 'common practice',
  messages: { expected: 'an answer at both' },
  judge(context) {
    const { view, brief } = context;
    const preferred = brief.preferredHost ?? view.preferredHost;
    const apex = registrableDomain(preferred);
    if (!apex || (preferred !== apex && preferred !== `www.${apex}`))
      return inapplicable('the site is on another subdomain');
    const unused = [apex, `www.${apex}`].find((host) => brief.unusedHosts?.includes(host));
    if (unused) return inapplicable(`the brief says that ${unused} is not used`);
    return overPlaces(
      context,
      [apex, `www.${apex}`].map((host) => judgeHost(host, context)),
    );
  },
  recipe: ({ brief, view }, finding) => {
    const preferred = brief.preferredHost ?? view.preferredHost;
    return {
      steps:
        'Set a record for the other host, name it at the host so that it gets a certificate, and let it redirect.',
      paste: [
        {
          label: 'Record',
          text: failedPlaces(finding)
            .map((p) =>
              p.place.startsWith('www.')
                ? `${p.place}. 3600 IN CNAME ${preferred}.`
                : `; ${p.place}: an A or ALIAS record as the host of ${preferred} says`,
            )
            .join('\n'),
        },
      ],
    };
  },
});
