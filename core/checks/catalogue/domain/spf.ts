import { recordRecipe } from '#core/recipes/records';
import {
  countSpf,
  parseSpf,
  tested,
  type SpfCount,
  type SpfQualifier,
  type SpfRecord,
} from '#core/extract/spf';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { answerText } from '#core/checks/kit/dns-answers';
import { isMailUse, mailUse } from './mail-use';
import { spfDns, spfOf } from './mail-texts';
import { defineMessages } from '#core/text/messages';
import { verbatim, type Message } from '#core/facts/message';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.spf', {
  'no-record': 'no SPF record',
  'several-records': '{count} SPF records',
  'many-lookups': '{lookups} lookups',
  'void-lookups': '{voids} lookups without an answer',
  'no-end': 'it does not end: neither all nor redirect',
  'open-end': 'it ends in {all}, which lets everybody send',
  'depends-on-sender': 'how many lookups stay without an answer depends on the sender',
  'not-followed': 'part of it could not be followed: {unknown}',
  record: '{text} ({lookups} lookups)',
});

/** How a record ends: the qualifier of its "all", or its redirect. */
function endOfSpf({ mechanisms, modifiers }: SpfRecord): SpfQualifier | 'redirect' | undefined {
  const all = mechanisms.find((m) => m.name === 'all');
  return all?.qualifier ?? (modifiers.some((m) => m.name === 'redirect') ? 'redirect' : undefined);
}

/** What is wrong with a domain's one record; undefined when nothing is. */
function faultOf(
  own: SpfRecord,
  count: SpfCount,
  most: { lookups: number; voids: number },
): Message | undefined {
  const error = own.errors[0] ?? count.errors[0];
  if (error) return verbatim(error);
  if (count.lookups > most.lookups) return msg('many-lookups', { lookups: count.lookups });
  if (count.voids > most.voids) return msg('void-lookups', { voids: count.voids });
  const end = endOfSpf(own);
  if (end === undefined) return msg('no-end');
  const all = own.mechanisms.find((m) => m.name === 'all');
  return end === '+' || end === '?' ? msg('open-end', { all: all!.raw }) : undefined;
}

/** One sound record of all that are there: each sender once, ended. */
function mergedSpf(texts: readonly string[]): string {
  const senders = new Set<string>();
  let end = '';
  for (const text of texts) {
    const { mechanisms } = parseSpf(text);
    for (const m of tested(mechanisms)) {
      const isSound = parseSpf(`v=spf1 ${m.raw}`).errors.length === 0;
      if (m.name !== 'all' && isSound) senders.add(m.raw);
      // the careful end wins: mail that one of the records let pass is not to be refused at once
      if (m.name === 'all') end = end === '~all' || m.qualifier !== '-' ? '~all' : '-all';
    }
  }
  return ['v=spf1', ...(senders.size ? senders : ['mx']), end || '~all'].join(' ');
}

export const spf = defineCheck({
  id: 'domain.spf',
  title: 'SPF is one valid record within its limits',
  fault: 'SPF is missing, invalid or over its limits',
  severity: 'major',
  situations: ['live'],
  scope: 'record',
  needs: { records: true },
  why: 'Without it, or with a broken one, the client’s own mail lands among the junk.',
  source: 'RFC 7208 3.2, 4.5, 4.6.4',
  parameters: {
    lookups: { default: 10, min: 1, max: 10, unit: 'lookups', meaning: 'most lookups' },
    voids: { default: 2, min: 0, max: 2, unit: 'void lookups', meaning: 'most lookups without an answer' },
  },
  messages: {
    expected: ({ parameters }) =>
      `one SPF record, at most ${parameters.lookups} lookups, ending in -all, ~all or redirect`,
  },
  judge(context) {
    const { evidence, parameters } = context;
    const use = mailUse(context);
    if (!isMailUse(use)) return use;
    if (use.mail === 'none') return inapplicable(commonMessage('no-mail'));
    const { zone } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    const { expected } = context.words;
    const { texts, answer, failed: silent } = spfOf(evidence, zone);
    if (silent) return cantTell(silent, { expected });
    const raw = answer && answerText(answer);
    const text = texts[0];
    if (text === undefined || texts.length > 1) {
      const found = texts.length ? msg('several-records', { count: texts.length }) : msg('no-record');
      return overSite(context, failed(zone, { found, raw }), { notes: use.notes });
    }
    const own = parseSpf(text);
    const count = countSpf(zone, spfDns(evidence));
    const fault = faultOf(own, count, parameters);
    if (fault) return overSite(context, failed(zone, { found: fault, raw }), { notes: use.notes });
    if (count.voids + count.maybeVoids > parameters.voids!)
      return cantTell(msg('depends-on-sender'), {
        expected,
        found: verbatim(text),
      });
    if (count.unknown.length)
      return cantTell(msg('not-followed', { unknown: count.unknown[0] }), {
        expected,
        found: verbatim(text),
      });
    const all = own.mechanisms.find((m) => m.name === 'all');
    const beyond = all && own.mechanisms.at(-1) !== all ? ['What stands after “all” is never read.'] : [];
    return overSite(context, passed(zone, { found: msg('record', { text, lookups: count.lookups }), raw }), {
      notes: [...use.notes, ...beyond],
    });
  },
  recipe: ({ evidence }) => {
    const name = evidence.dns.zone ?? '';
    const { texts } = spfOf(evidence, name);
    const record = (value: string) => ({ name, type: 'TXT', value: `"${value}"` });
    return {
      steps:
        'Keep one record that names every sender (mail provider, newsletter, web server), and end it in -all or ~all. This one joins what stands there today; add who is missing.',
      paste: recordRecipe(texts.map(record), [record(mergedSpf(texts))]),
    };
  },
});
