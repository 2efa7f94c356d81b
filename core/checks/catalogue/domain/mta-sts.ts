import { finalStatus, type Evidence } from '#core/facts/evidence';
import { coversHost } from '#core/facts/certificate';
import { verbatim, type Message } from '#core/facts/message';
import { coversExchanger, isSts, parseSts, parseStsPolicy } from '#core/extract/mta-sts';
import { answersFor, exchangerOf, isUsable } from '#core/checks/kit/dns-answers';
import { defineCheck, type CheckContext } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { commonMessage } from '#core/text/common-messages';
import { defineMessages } from '#core/text/messages';
import { textsOf } from './mail-texts';

const msg = defineMessages('domain.mta-sts', {
  'no-record': 'there is no MTA-STS record',
  'several-records': '{count} MTA-STS records, which counts as none',
  record: 'the record: {error}',
  'no-policy': 'no policy: {why}',
  'not-ok': 'no policy: {status}',
  certificate: 'the certificate of {host} is not valid for it',
  policy: 'the policy: {error}',
  uncovered: 'the policy does not name {exchanger}',
  good: 'mode {mode}, {mx}',
});

/** What a silence says nothing of. */
const UNSURE = new Set(['timeout', 'reset', 'stopped', 'dns']);

/** What takes mail for a zone; undefined where nobody said. */
const exchangersOf = (evidence: Evidence, zone: string): string[] | undefined =>
  answersFor(evidence, zone, 'MX')
    .find(isUsable)
    ?.records.filter((r) => r.type === 'MX')
    .map((r) => exchangerOf(r.value))
    .filter(Boolean);

/** What is wrong with the policy file; a message in `doubt` where that cannot be told. */
function policyFault(
  policy: NonNullable<CheckContext['evidence']['mtaSts']>,
  exchangers: readonly string[] | undefined,
): { fault: Message } | { doubt: Message } | { good: Message } {
  const { chain, host, trusted, names, text } = policy;
  const { error } = chain;
  if (error && UNSURE.has(error.code)) return { doubt: verbatim(error.message) };
  if (error) return { fault: msg('no-policy', { why: error.message }) };
  if (!trusted || !coversHost(names, host)) return { fault: msg('certificate', { host }) };
  const status = finalStatus(chain);
  // redirects are not followed (RFC 8461 3.3)
  if (status !== 200) return { fault: msg('not-ok', { status }) };
  const { errors, mode, mx } = parseStsPolicy(text);
  if (errors[0]) return { fault: msg('policy', { error: errors[0] }) };
  const good = msg('good', { mode, mx: mx.join(', ') });
  if (mode === 'none') return { good };
  if (!exchangers) return { doubt: commonMessage('no-answer') };
  const open = exchangers.find((exchanger) => !coversExchanger(mx, exchanger));
  return open === undefined ? { good } : { fault: msg('uncovered', { exchanger: open }) };
}

export const mtaSts = defineCheck({
  id: 'domain.mta-sts',
  title: 'MTA-STS has a valid record and policy',
  fault: 'MTA-STS record or policy is not valid',
  severity: 'minor',
  situations: ['live'],
  scope: 'site',
  facts: ['mtaSts'],
  reads: ['http'],
  needs: { records: true },
  why: 'Senders who meet a record without a sound policy take it for none, and those who kept an older policy may hold mail back.',
  source: 'RFC 8461 3, 4.1',
  messages: { expected: 'one record, and a policy over a valid certificate that names every exchanger' },
  judge(context) {
    const { evidence } = context;
    const { zone } = evidence.dns;
    const { expected } = context.words;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    const place = `_mta-sts.${zone}`;
    const { texts, failed: silent } = textsOf(evidence, place);
    if (silent) return cantTell(silent, { expected });
    const records = texts.filter(isSts);
    if (!records.length) return inapplicable(msg('no-record'));
    const fails = (found: Message) => overSite(context, failed(place, { found, raw: records.join('\n') }));
    if (records.length > 1) return fails(msg('several-records', { count: records.length }));
    const [error] = parseSts(records[0]!).errors;
    if (error) return fails(msg('record', { error }));
    if (!evidence.mtaSts) return cantTell(commonMessage('no-answer'), { expected });
    const judged = policyFault(evidence.mtaSts, exchangersOf(evidence, zone));
    if ('doubt' in judged) return cantTell(judged.doubt, { expected });
    if ('fault' in judged) return fails(judged.fault);
    return overSite(context, passed(place, { found: judged.good, raw: evidence.mtaSts.text.slice(0, 400) }));
  },
  recipe: ({ evidence }) => {
    const zone = evidence.dns.zone ?? '';
    const exchangers = (exchangersOf(evidence, zone) ?? []).map((name) => `mx: ${name}`);
    return {
      steps: `Serve the policy at https://mta-sts.${zone}/.well-known/mta-sts.txt with a certificate for that name, without a redirect, and give the record a new id. Begin with mode: testing, and change it to enforce once the reports are clean.`,
      paste: [
        {
          label: 'Policy file',
          text: ['version: STSv1', 'mode: testing', ...exchangers, 'max_age: 604800'].join('\n'),
        },
        { label: 'Zone file', text: `_mta-sts.${zone}. 3600 IN TXT "v=STSv1; id=…"` },
      ],
    };
  },
});
