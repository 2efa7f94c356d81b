import { parseDmarc } from '#core/extract/dmarc';
import { parseSpf } from '#core/extract/spf';
import type { PlaceResult } from '#core/facts/finding';
import { defineCheck } from '#core/checks/kit/check';
import { failed, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { bestAnswers } from '#core/checks/kit/dns-answers';
import { isNullMx } from './mail-exchanger';
import { dmarcOf, spfOf } from './mail-texts';

export const noMailClosed = defineCheck({
  id: 'domain.no-mail-closed',
  title: 'A domain without mail says so',
  severity: 'minor',
  situations: ['live'],
  scope: 'record',
  needs: { records: true, brief: ['mail'] },
  why: 'Forgers like domains that nobody guards.',
  source: 'RFC 7505; RFC 7208; RFC 7489',
  messages: { expected: 'a null MX, SPF -all, DMARC reject' },
  judge(context) {
    const { evidence, brief } = context;
    if (brief.mail !== 'none') return inapplicable('the brief says the domain has mail');
    const { zone } = evidence.dns;
    if (!zone) return inapplicable('the site has no zone of its own');
    const places: PlaceResult[] = [];
    const mx = bestAnswers(evidence, zone, 'MX').find((a) => a.rcode === 'NOERROR' || a.rcode === 'NXDOMAIN');
    const exchangers = mx?.records.filter((r) => r.type === 'MX').map((r) => r.value) ?? [];
    places.push(
      !mx
        ? unsure(`MX ${zone}`, 'no answer')
        : exchangers.length === 1 && isNullMx(exchangers[0]!)
          ? passed(`MX ${zone}`, { found: '0 .' })
          : failed(`MX ${zone}`, { found: exchangers.join(', ') || 'no MX', expected: '0 .' }),
    );
    const spf = spfOf(evidence, zone);
    const closed =
      spf.texts.length === 1 &&
      ((r) =>
        r.mechanisms.length === 1 && r.mechanisms[0]!.name === 'all' && r.mechanisms[0]!.qualifier === '-')(
        parseSpf(spf.texts[0]!),
      );
    places.push(
      spf.failed
        ? unsure(`SPF ${zone}`, spf.failed)
        : (closed ? passed : failed)(`SPF ${zone}`, {
            found: spf.texts.join(', ') || 'no SPF record',
            expected: 'v=spf1 -all',
          }),
    );
    const dmarc = dmarcOf(evidence, zone);
    const reject =
      dmarc.texts.length === 1 &&
      ((r) => !r.errors.length && r.policy === 'reject')(parseDmarc(dmarc.texts[0]!));
    places.push(
      dmarc.failed
        ? unsure(`DMARC ${zone}`, dmarc.failed)
        : (reject ? passed : failed)(`DMARC ${zone}`, {
            found: dmarc.texts.join(', ') || 'no DMARC record',
            expected: 'v=DMARC1; p=reject',
          }),
    );
    return overPlaces(context, places);
  },
  recipe: ({ evidence }) => ({
    steps: 'Set these three records.',
    paste: [
      {
        label: 'Zone file',
        text: `${evidence.dns.zone}. 3600 IN MX 0 .\n${evidence.dns.zone}. 3600 IN TXT "v=spf1 -all"\n_dmarc.${evidence.dns.zone}. 3600 IN TXT "v=DMARC1; p=reject"`,
      },
    ],
  }),
});
