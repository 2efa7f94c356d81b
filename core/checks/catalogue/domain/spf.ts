import { countSpf, parseSpf } from '#core/extract/spf';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overSite, passed } from '#core/checks/kit/judgement';
import { answerText } from '#core/checks/kit/dns-answers';
import { spfDns, spfOf } from './mail-texts';

export const spf = defineCheck({
  id: 'domain.spf',
  title: 'SPF says who may send for the domain',
  severity: 'major',
  situations: ['live'],
  scope: 'record',
  needs: { records: true, brief: ['mail'] },
  why: 'Without it, or with a broken one, the client’s own mail lands among the junk.',
  source: 'RFC 7208 3.2, 4.5, 4.6.4',
  parameters: {
    lookups: { default: 10, min: 1, max: 10, unit: 'lookups', meaning: 'most lookups' },
    voids: { default: 2, min: 0, max: 2, unit: 'void lookups', meaning: 'most lookups without an answer' },
  },
  judge(context) {
    const { evidence, brief, parameters } = context;
    if (brief.mail === 'none')
      return inapplicable('the brief says the domain has no mail; domain.no-mail-closed looks at that');
    const { zone } = evidence.dns;
    if (!zone) return inapplicable('the site has no zone of its own');
    const { lookups = 10, voids = 2 } = parameters;
    const expected = `one SPF record, at most ${lookups} lookups, ending in -all, ~all or redirect`;
    const { texts, answer, failed: silent } = spfOf(evidence, zone);
    if (silent) return cantTell(silent, { expected });
    const raw = answer && answerText(answer);
    const bad = (found: string) => overSite(context, failed(zone, { found, raw }), { expected });
    if (texts.length !== 1) return bad(texts.length ? `${texts.length} SPF records` : 'no SPF record');
    const own = parseSpf(texts[0]!);
    const count = countSpf(zone, spfDns(evidence));
    if (own.errors.length) return bad(own.errors[0]!);
    if (count.errors.length) return bad(count.errors[0]!);
    if (count.lookups > lookups) return bad(`${count.lookups} lookups`);
    if (count.voids > voids) return bad(`${count.voids} lookups without an answer`);
    const all = own.mechanisms.find((m) => m.name === 'all');
    const end = all
      ? all.qualifier
      : own.modifiers.some((m) => m.name === 'redirect')
        ? 'redirect'
        : undefined;
    if (end === undefined) return bad('it does not end: neither all nor redirect');
    if (end === '+' || end === '?') return bad(`it ends in ${all!.raw}, which lets everybody send`);
    const notes = all && own.mechanisms.at(-1) !== all ? ['What stands after “all” is never read.'] : [];
    if (count.unknown.length)
      return cantTell(`part of it could not be followed: ${count.unknown[0]}`, { expected, found: texts[0] });
    return overSite(context, passed(zone, { found: `${texts[0]} (${count.lookups} lookups)`, raw }), {
      expected,
      notes,
    });
  },
  recipe: ({ evidence }) => ({
    steps:
      'Keep one record that names every sender (mail provider, newsletter, web server), and end it in -all or ~all.',
    paste: [{ label: 'Zone file', text: `${evidence.dns.zone}. 3600 IN TXT "v=spf1 mx -all"` }],
  }),
});
