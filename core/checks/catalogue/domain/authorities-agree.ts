import { rangeOf } from '#core/facts/address-ranges';
import type { DnsAnswer } from '#core/facts/evidence';
import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overPlaces, passed, unsure } from '#core/checks/kit/judgement';
import { answersFor, answerText, canonicalValue, plainName } from '#core/checks/kit/dns-answers';
import { defineMessages } from '#core/text/messages';
import { verbatim, type Message } from '#core/facts/message';
import { commonMessage, joinMessages } from '#core/text/common-messages';

const msg = defineMessages('domain.authorities-agree', {
  'there-one-name-server-only': 'there is one name server only',
  'fewer-than-two-name-servers': 'fewer than two name servers answered',
  'addresses-of': 'addresses of {value}',
  'addresses-of-ranges': 'addresses of {name}’s ranges',
  'server-says': '{servers}: {said}',
  'still-spreading': 'still spreading: {found}',
});

const HOUR = 3_600_000;
/** What an answer says, so that two can be compared: the set of values, whatever their order and TTL. */
function saying(a: DnsAnswer): string {
  if (a.rcode !== 'NOERROR') return a.rcode;
  const name = plainName(a.name);
  const values = new Set<string>();
  for (const r of a.records)
    if (r.name === a.name || plainName(r.name) === name)
      values.add(`${r.type} ${canonicalValue(r.type, r.value)}`);
  return [...values].sort().join(', ');
}

/** An empty answer has words of its own. */
const inWords = (said: string): Message => (said ? verbatim(said) : commonMessage('no-such-record'));

/** Whether two answers are the same to the letter, as most are: quicker to see than what each says. */
const isAlike = (a: DnsAnswer, b: DnsAnswer): boolean =>
  a === b ||
  (a.rcode === b.rcode &&
    a.records.length === b.records.length &&
    a.records.every((r, i) => {
      const other = b.records[i]!;
      return r.value === other.value && r.type === other.type && r.name === other.name;
    }));

export const authoritiesAgree = defineCheck({
  id: 'domain.authorities-agree',
  title: 'Name servers all give the same answers',
  fault: 'Name servers give different answers',
  severity: 'major',
  situations: ['holding', 'live'],
  scope: 'record',
  facts: ['registration'],
  reads: ['registration'],
  needs: { records: true },
  why: 'One server left behind gives some visitors the old site for as long as nobody asks it.',
  source: 'common practice',
  parameters: {
    hours: {
      default: 48,
      min: 0,
      max: 240,
      unit: 'hours',
      meaning: 'how long after a known change a difference may still be spreading',
    },
  },
  messages: { expected: 'the same answers from every name server' },
  judge(context) {
    const { evidence, brief, profile, at, parameters } = context;
    const asked = evidence.dns.answers.filter(
      (a) =>
        a.role === 'authority' &&
        a.type !== 'SOA' &&
        a.rcode !== 'NONE' &&
        a.rcode !== 'SERVFAIL' &&
        a.rcode !== 'REFUSED',
    );
    if (!evidence.dns.zone) return inapplicable(commonMessage('no-own-zone'));
    const servers = new Set(asked.map((a) => a.server));
    if (servers.size < 2)
      return servers.size && evidence.dns.nameServers.length < 2
        ? inapplicable(msg('there-one-name-server-only'))
        : cantTell(msg('fewer-than-two-name-servers'));
    const changes = [
      brief.launchDate,
      ...(evidence.registration?.events ?? []).filter((e) => e.action === 'last changed').map((e) => e.date),
    ]
      .map((d) => Date.parse(d ?? ''))
      .filter((t) => t <= at.getTime() && at.getTime() - t <= parameters.hours * HOUR);
    const groups = new Map<string, DnsAnswer[]>();
    for (const a of asked) {
      const key = `${a.type} ${plainName(a.name)}`;
      const g = groups.get(key);
      if (g) g.push(a);
      else groups.set(key, [a]);
    }
    return overPlaces(
      context,
      [...groups].map(([place, answers]) => {
        if (answers.every((a) => isAlike(a, answers[0]!)))
          return passed(place, { found: inWords(saying(answers[0]!)) });
        const said = new Map<string, DnsAnswer[]>();
        for (const a of answers) {
          const s = saying(a);
          const g = said.get(s);
          if (g) g.push(a);
          else said.set(s, [a]);
        }
        if (said.size === 1) return passed(place, { found: inWords([...said.keys()][0]!) });
        // a host that flattens an alias answers now with one of its addresses, now with another
        const alias = (brief.records ?? []).find(
          (r) => r.type === 'CNAME' && plainName(r.name) === plainName(answers[0]!.name),
        );
        const pool = new Set(
          alias
            ? answersFor(evidence, alias.value, answers[0]!.type).flatMap((a) =>
                a.records.map((r) => r.value),
              )
            : [],
        );
        if (pool.size && answers.every((a) => a.records.every((r) => pool.has(r.value))))
          return passed(place, { found: msg('addresses-of', { value: alias!.value }) });
        if (
          answers.every(
            (a) => a.records.length > 0 && a.records.every((r) => rangeOf(r.value, profile.addressRanges)),
          )
        )
          return passed(place, {
            found: msg('addresses-of-ranges', { name: profile.name || commonMessage('the-host') }),
          });
        const found = joinMessages(
          [...said].map(([s, by]) =>
            msg('server-says', {
              servers: by.map((a) => a.serverName ?? a.server).join(', '),
              said: inWords(s),
            }),
          ),
        );
        const raw = answers.map(answerText).join('\n');
        return changes.length
          ? unsure(place, msg('still-spreading', { found }), { raw })
          : failed(place, { found, raw });
      }),
    );
  },
  recipe: () => ({
    steps:
      'Look at the server that differs: mostly it has stopped fetching the zone (its serial is older), or it belongs to a former operator and has to be taken out of the delegation.',
  }),
});
