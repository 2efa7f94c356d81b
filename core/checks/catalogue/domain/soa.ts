import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { answerText, bestAnswers } from '#core/checks/kit/dns-answers';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.soa', {
  'no-soa': 'no SOA ({rcode})',
  'timers-out-of-order': 'refresh {refresh}, retry {retry}, expire {expire}',
  'long-minimum': 'minimum {minimum} s: what does not exist is remembered for {minimum2} hours',
  timers: 'refresh {refresh}, retry {retry}, expire {expire}, minimum {minimum}',
});

export const soa = defineCheck({
  id: 'domain.soa',
  title: 'SOA timers are consistent',
  fault: 'SOA timers are inconsistent',
  severity: 'minor',
  situations: ['live'],
  scope: 'record',
  needs: { records: true },
  why: 'With times in the wrong order a second name server gives the zone up too early, or keeps an old one.',
  source: 'RFC 1912 2.2; RFC 2308 5',
  messages: { expected: 'retry < refresh < expire, minimum at most a day', unit: 'answer' },
  judge(context) {
    const { evidence } = context;
    const { zone } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    return overPlaces(
      context,
      bestAnswers(evidence, zone, 'SOA').map((a) => {
        const place = `SOA ${zone} at ${a.serverName ?? a.server}`;
        const value = a.records.find((r) => r.type === 'SOA')?.value;
        if (!value)
          return unsure(
            place,
            a.rcode === 'NONE'
              ? (verbatim(a.error) ?? commonMessage('no-answer'))
              : msg('no-soa', { rcode: a.rcode }),
          );
        const [refresh, retry, expire, minimum] = value.split(/\s+/).slice(3).map(Number) as [
          number,
          number,
          number,
          number,
        ];
        const raw = answerText(a);
        if (!(retry < refresh && refresh < expire))
          return failed(place, { found: msg('timers-out-of-order', { refresh, retry, expire }), raw });
        return minimum > 86_400
          ? failed(place, {
              found: msg('long-minimum', { minimum, minimum2: Math.round(minimum / 3600) }),
              raw,
            })
          : passed(place, {
              found: msg('timers', { refresh, retry, expire, minimum }),
              raw,
            });
      }),
    );
  },
  recipe: ({ evidence }) => ({
    steps: 'Set the times at the operator of the zone; with most the defaults are right.',
    paste: [
      {
        label: 'Zone file',
        text: `${evidence.dns.zone}. 3600 IN SOA ${evidence.dns.nameServers[0]?.name ?? 'ns1'}. hostmaster.${evidence.dns.zone}. 1 86400 7200 3600000 3600`,
      },
    ],
  }),
});
