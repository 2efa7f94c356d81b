import { isTlsReports, parseTlsReports } from '#core/extract/mta-sts';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { commonMessage } from '#core/text/common-messages';
import { defineMessages } from '#core/text/messages';
import { textsOf } from './mail-texts';

const msg = defineMessages('domain.tls-reports', {
  'no-record': 'there is no record for reports of TLS failures',
  'several-records': '{count} records, which counts as none',
  fault: '{error}',
  good: 'reports go to {rua}',
});

export const tlsReports = defineCheck({
  id: 'domain.tls-reports',
  title: 'Record for TLS reports is valid',
  fault: 'Record for TLS reports is not valid',
  severity: 'minor',
  situations: ['live'],
  scope: 'site',
  needs: { records: true },
  why: 'With a record that senders cannot use nobody hears that mail could not be delivered over TLS.',
  source: 'RFC 8460 3',
  messages: { expected: 'one record, with rua= a mailto: or https: address' },
  judge(context) {
    const { evidence } = context;
    const { zone } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    const place = `_smtp._tls.${zone}`;
    const { texts, failed: silent } = textsOf(evidence, place);
    if (silent) return cantTell(silent, { expected: context.words.expected });
    const records = texts.filter(isTlsReports);
    if (!records.length) return inapplicable(msg('no-record'));
    const raw = records.join('\n');
    if (records.length > 1)
      return overSite(
        context,
        failed(place, { found: msg('several-records', { count: records.length }), raw }),
      );
    const { rua, errors } = parseTlsReports(records[0]!);
    return overSite(
      context,
      errors[0]
        ? failed(place, { found: msg('fault', { error: errors[0] }), raw })
        : passed(place, { found: msg('good', { rua: rua.join(', ') }), raw }),
    );
  },
  recipe: ({ evidence, brief }) => ({
    steps: 'Name an address that somebody reads, or a service that sums the reports up.',
    paste: [
      {
        label: 'Zone file',
        text: `_smtp._tls.${evidence.dns.zone ?? ''}. 3600 IN TXT "v=TLSRPTv1; rua=mailto:${brief.contactEmail ?? 'reports@…'}"`,
      },
    ],
  }),
});
