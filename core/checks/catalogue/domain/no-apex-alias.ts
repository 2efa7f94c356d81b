import { defineCheck } from '#core/checks/kit/check';
import { failed, overPlaces, passed } from '#core/checks/kit/judgement';
import { answersFor, answerText, plainName } from '#core/checks/kit/dns-answers';
import { defineMessages } from '#core/text/messages';

const msg = defineMessages('domain.no-apex-alias', {
  'no-alias': 'no alias',
  'cname-at-apex': 'CNAME {value} at the zone’s own name',
  'cname-beside-others': 'CNAME {value} beside {type} {value2}',
  'cname-alone': 'CNAME {value}, alone',
});

/** What may stand beside an alias (RFC 4035 2.5). */
const MAY_STAND = new Set(['CNAME', 'RRSIG', 'NSEC']);
const LOOKED_AT = ['A', 'AAAA', 'MX', 'TXT', 'NS', 'SOA', 'CAA', 'HTTPS'];

export const noApexAlias = defineCheck({
  id: 'domain.no-apex-alias',
  title: 'No CNAME at the apex or beside other records',
  fault: 'CNAME at the apex or beside other records',
  severity: 'major',
  situations: ['holding', 'live'],
  scope: 'record',
  needs: { records: true },
  why: 'An alias replaces everything else of its name: at the bare domain it makes mail and name servers vanish, for some resolvers.',
  source: 'RFC 1034 3.6.2; RFC 2181 10.1; RFC 4035 2.5',
  messages: { expected: 'a CNAME alone, and none at the zone’s own name', unit: 'name' },
  judge(context) {
    const { evidence } = context;
    const zone = evidence.dns.zone;
    const names = [...new Set([...(zone ? [zone] : []), ...evidence.target.hosts])];
    const places = names.flatMap((name) => {
      const answers = answersFor(evidence, name, 'CNAME');
      if (!answers.length) return [];
      const alias = answers.find((a) =>
        a.records.some((r) => r.type === 'CNAME' && plainName(r.name) === name),
      );
      if (!alias) return [passed(name, { found: msg('no-alias') })];
      const value = alias.records.find((r) => r.type === 'CNAME')!.value;
      // what is reached through the alias has its own name, and is no neighbour
      const beside = LOOKED_AT.flatMap((type) => answersFor(evidence, name, type))
        .flatMap((a) => a.records)
        .find((r) => plainName(r.name) === name && !MAY_STAND.has(r.type));
      const raw = answerText(alias);
      if (name === zone) return [failed(name, { found: msg('cname-at-apex', { value }), raw })];
      return [
        beside
          ? failed(name, {
              found: msg('cname-beside-others', { value, type: beside.type, value2: beside.value }),
              raw,
            })
          : passed(name, { found: msg('cname-alone', { value }), raw }),
      ];
    });
    return overPlaces(context, places);
  },
  recipe: ({ evidence, profile }) => ({
    steps: `Replace the CNAME of the bare domain by the A and AAAA records that ${profile.name || 'the host'} names, or by the operator’s own flattening record (ALIAS, ANAME).`,
    paste: [{ label: 'Zone file', text: `${evidence.dns.zone ?? 'the domain'}. 3600 IN A …` }],
  }),
});
