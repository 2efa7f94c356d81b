/** What differs of hosts, records, headers and certificates between two states of a site. */
import { headerValues, lastAnswer, type Evidence } from '#core/facts/evidence';

export interface SiteChange {
  what: 'record' | 'header' | 'certificate' | 'redirect' | 'robots.txt' | 'status';
  where: string;
  before: string;
  after: string;
}

/** Headers that say something of the site, and not of the moment. */
const HEADERS = [
  'content-type',
  'content-language',
  'content-security-policy',
  'permissions-policy',
  'referrer-policy',
  'server',
  'strict-transport-security',
  'x-content-type-options',
  'x-frame-options',
  'x-robots-tag',
  'cache-control',
];
const NONE = 'none';
const LONGEST = 600;

type Lines = Map<string, string>;

/** Values of the records of the site’s own names, as resolvers give them. */
function recordsOf({ dns, target }: Evidence): Lines {
  const out: Lines = new Map();
  const own = new Set(target.hosts);
  if (dns.zone) own.add(dns.zone);
  for (const { role, name, type, records, rcode } of dns.answers) {
    if (role !== 'resolver' || (!own.has(name) && !(dns.zone && name.endsWith(`.${dns.zone}`)))) continue;
    if (type === 'SOA' || rcode === 'NONE' || name.startsWith(dns.randomLabel)) continue;
    const values = records.filter((r) => r.type === type && r.name === name).map((r) => r.value);
    out.set(`${name} ${type}`, values.sort().join(', ') || NONE);
  }
  return out;
}

function headersOf({ pages }: Evidence): Lines {
  const home = pages.find((p) => p.via === 'home');
  const answer = home && lastAnswer(home.chain);
  return new Map(HEADERS.map((name) => [name, headerValues(answer, name).join(', ') || NONE]));
}

function certificatesOf({ hosts }: Evidence): Lines {
  return new Map(
    hosts.flatMap(({ host, tls }) => {
      const [leaf] = tls.chain;
      if (!leaf) return [];
      const said = `${leaf.issuer}; ${leaf.names.join(', ')}; until ${leaf.notAfter.slice(0, 10)}`;
      return [[host, said] as [string, string]];
    }),
  );
}

function redirectsOf({ hosts }: Evidence): Lines {
  return new Map(
    hosts.flatMap(({ host, http, https }) =>
      (
        [
          [`http://${host}/`, http],
          [`https://${host}/`, https],
        ] as const
      ).map(([from, chain]): [string, string] => {
        const last = chain.hops.at(-1);
        return [from, chain.error?.message ?? `${last?.status ?? ''} ${last?.url ?? ''}`.trim()];
      }),
    ),
  );
}

function changesBetween(what: SiteChange['what'], before: Lines, after: Lines): SiteChange[] {
  const out: SiteChange[] = [];
  for (const where of new Set([...before.keys(), ...after.keys()])) {
    const [then = NONE, now = NONE] = [before.get(where), after.get(where)];
    if (then !== now) out.push({ what, where, before: then.slice(0, LONGEST), after: now.slice(0, LONGEST) });
  }
  return out;
}

const robotsOf = ({ robots }: Evidence): Lines => new Map([['/robots.txt', robots.text?.trim() || NONE]]);

/**
 * Records, certificates, redirects and robots.txt where both sides are of the same hosts: those of different
 * environments differ by nature. Headers always.
 */
export function siteChanges(before: Evidence, after: Evidence): SiteChange[] {
  const isSame = before.target.kind === after.target.kind && before.target.hosts[0] === after.target.hosts[0];
  return [
    ...(isSame
      ? [
          ...changesBetween('record', recordsOf(before), recordsOf(after)),
          ...changesBetween('certificate', certificatesOf(before), certificatesOf(after)),
          ...changesBetween('redirect', redirectsOf(before), redirectsOf(after)),
          ...changesBetween('robots.txt', robotsOf(before), robotsOf(after)),
        ]
      : []),
    ...changesBetween('header', headersOf(before), headersOf(after)),
  ];
}
