import { registrableDomain } from '#core/extract/address';
import { finalStatus, type Chain } from '#core/facts/evidence';
import type { PlaceResult } from '#core/facts/finding';
import type { Situation } from '#core/facts/situation';
import { isUnresolved, redirectFault, refuses, restsOn } from '#core/checks/kit/chains';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { failed, failedPlaces, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { restsOnCheck, commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.both-hosts', {
  'audit-again': 'audit again: it was not looked at',
  answers: '{status} {url}',
  'site-on-another-subdomain': 'the site is on another subdomain',
  'brief-says-not-used': 'the brief says that {unused} is not used',
});

function judgeHost(host: string, { view, situation }: CheckContext): PlaceResult {
  const h = view.evidence.hosts.find((one) => one.host === host && one.role !== 'staging');
  if (!h) return unsure(host, msg('audit-again'));
  // nobody has set a record for it, and the brief does not name it, so that no other check minds
  const error = h.https.error ?? h.http.error;
  if (h.role === 'implied' && isUnresolved(error?.code))
    return failed(host, { found: verbatim(error!.message) });
  const chain = [h.https, h.http].find((c) => c.end === 'answer');
  const status = chain && finalStatus(chain);
  if (status === undefined) {
    const circle = redirectFault(h.https) ?? redirectFault(h.http);
    return circle ? failed(host, { found: verbatim(circle) }) : unsure(host, restsOn(error, view));
  }
  if (view.showsForeignPage(h))
    return unsure(host, restsOnCheck('domain.connected', commonMessage('parked')));
  return judgeAnswer(host, status, chain!, situation);
}

function judgeAnswer(host: string, status: number, chain: Chain, situation: Situation): PlaceResult {
  if (refuses(status)) return unsure(host, commonMessage('refused', { status }));
  return status < 400 || (status === 503 && situation === 'holding')
    ? passed(host, { found: msg('answers', { status, url: chain.hops.at(-1)!.url }) })
    : failed(host, { found: commonMessage('status', { status }) });
}

export const bothHosts = defineCheck({
  id: 'domain.both-hosts',
  title: 'Apex and www both answer',
  fault: 'Apex or www does not answer',
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
      return inapplicable(msg('site-on-another-subdomain'));
    const unused = [apex, `www.${apex}`].find((host) => brief.unusedHosts?.includes(host));
    if (unused) return inapplicable(msg('brief-says-not-used', { unused }));
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
