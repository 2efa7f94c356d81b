import { parseDmarc } from '#core/extract/dmarc';
import { recordRecipe } from '#core/recipes/records';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { answerText } from '#core/checks/kit/dns-answers';
import { isMailUse, mailUse } from './mail-use';
import { dmarcOf } from './mail-texts';
import { defineMessages } from '#core/text/messages';
import { verbatim } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.dmarc', {
  'several-records': '{textsCount} DMARC records, so none counts',
  'no-record': 'no DMARC record',
  policy: 'p={policy}{isPartial, select, yes {, {percent} %} other {}}',
});

const dmarcRecord = (zone: string | null, text: string) => ({
  name: `_dmarc.${zone}`,
  type: 'TXT',
  value: `"${text}"`,
});

export const dmarc = defineCheck({
  id: 'domain.dmarc',
  title: 'DMARC is one valid record',
  fault: 'DMARC is missing or invalid',
  severity: 'minor',
  situations: ['live'],
  scope: 'record',
  needs: { records: true },
  why: 'The large mail providers want it of everybody who writes to their users.',
  source: 'RFC 7489 6.3, 6.6.3',
  judge(context) {
    const { evidence } = context;
    const use = mailUse(context);
    if (!isMailUse(use)) return use;
    if (use.mail === 'none') return inapplicable(commonMessage('no-mail'));
    // the zone asked is the organisational domain already, which is where the search ends (RFC 7489 6.6.3)
    const { zone } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    const expected = `one valid DMARC record at _dmarc.${zone}`;
    const { texts, answer, failed: silent } = dmarcOf(evidence, zone);
    if (silent) return cantTell(silent, { expected });
    const raw = answer && answerText(answer);
    if (texts.length !== 1)
      return overSite(
        context,
        failed(`_dmarc.${zone}`, {
          found: texts.length ? msg('several-records', { textsCount: texts.length }) : msg('no-record'),
          raw,
        }),
        { expected, notes: use.notes },
      );
    const record = parseDmarc(texts[0]!);
    if (record.errors.length)
      return overSite(context, failed(`_dmarc.${zone}`, { found: verbatim(record.errors[0]!), raw }), {
        expected,
        notes: use.notes,
      });
    return overSite(
      context,
      passed(`_dmarc.${zone}`, {
        found: msg('policy', {
          policy: record.policy,
          isPartial: record.percent < 100 ? 'yes' : 'no',
          percent: record.percent < 100 ? record.percent : undefined,
        }),
        raw,
      }),
      { expected, notes: [...use.notes, ...record.notes] },
    );
  },
  recipe: ({ evidence, brief }) => ({
    steps: 'Begin with p=none and read the reports for some weeks; then quarantine, then reject.',
    paste: recordRecipe(
      dmarcOf(evidence, evidence.dns.zone ?? '').texts.map((text) => dmarcRecord(evidence.dns.zone, text)),
      [
        dmarcRecord(
          evidence.dns.zone,
          `v=DMARC1; p=none; rua=mailto:${brief.contactEmail ?? `postmaster@${evidence.dns.zone}`}`,
        ),
      ],
    ),
  }),
});
