import { defineCheck } from '#core/checks/kit/check';
import { cantTell, failed, inapplicable, overPlaces, passed } from '#core/checks/kit/judgement';
import { answersFor, answerText, plainName } from '#core/checks/kit/dns-answers';
import { defineMessages } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

const msg = defineMessages('domain.delegation-agrees', {
  'zone-above-could-not-found': 'the zone above could not be found',
  'no-server-answered': 'no server of {zone} answered',
  'parent-only': 'named by {zone}, not by the zone itself',
  'zone-only': 'named by the zone, not by {zone}',
  'stale-glue': '{zone} gives {stale} as its address',
  'named-by-both': 'named by both',
});

export const delegationAgrees = defineCheck({
  id: 'domain.delegation-agrees',
  title: 'Delegation agrees: parent and child NS are the same',
  fault: 'Parent and child NS or glue differ',
  severity: 'major',
  situations: ['holding', 'former', 'live'],
  scope: 'record',
  facts: ['namedBy', 'parent'],
  needs: { records: true },
  why: 'Where the two differ, some resolvers ask servers that were given up long ago.',
  source: 'RFC 1034 4.2.2',
  messages: { unit: 'name server' },
  judge(context) {
    const { evidence } = context;
    const { zone, nameServers, parent } = evidence.dns;
    if (!zone) return inapplicable(commonMessage('no-own-zone'));
    if (!parent) return cantTell(msg('zone-above-could-not-found'));
    const referrals = evidence.dns.answers.filter(
      (a) => a.role === 'parent' && a.type === 'NS' && plainName(a.name) === zone && a.rcode !== 'NONE',
    );
    if (!referrals.length) return cantTell(msg('no-server-answered', { zone: parent.zone }));
    const raw = answerText(referrals[0]!);
    const glue = new Map<string, Set<string>>();
    for (const r of referrals.flatMap((a) => a.additional ?? [])) {
      const set = glue.get(plainName(r.name)) ?? new Set();
      set.add(r.value);
      glue.set(plainName(r.name), set);
    }
    return overPlaces(
      context,
      nameServers.map((s) => {
        if (s.namedBy.length < 2)
          return failed(s.name, {
            found:
              s.namedBy[0] === 'parent'
                ? msg('parent-only', { zone: parent.zone })
                : msg('zone-only', { zone: parent.zone }),
            raw,
          });
        const above = glue.get(s.name);
        const here = new Set(
          [...answersFor(evidence, s.name, 'A'), ...answersFor(evidence, s.name, 'AAAA')].flatMap((a) =>
            a.records.filter((r) => r.type === 'A' || r.type === 'AAAA').map((r) => r.value),
          ),
        );
        const stale = above && here.size ? [...above].filter((x) => !here.has(x)) : [];
        return stale.length
          ? failed(s.name, {
              found: msg('stale-glue', { zone: parent.zone, stale: stale.join(', ') }),
              expected: [...here].join(', '),
              raw,
            })
          : passed(s.name, { found: msg('named-by-both') });
      }),
      {
        expected: `the same name servers in ${parent.zone} and in ${zone}, addresses included`,
      },
    );
  },
  recipe: ({ evidence }) => ({
    steps:
      'Bring the two together: name servers and their addresses at the registrar, NS records in the zone.',
    paste: [
      {
        label: 'NS records of the zone',
        text: evidence.dns.nameServers
          .filter((s) => s.namedBy.includes('parent'))
          .map((s) => `${evidence.dns.zone}. 86400 IN NS ${s.name}.`)
          .join('\n'),
      },
    ],
  }),
});
