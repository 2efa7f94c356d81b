/** What the practice net's name servers say. */
import type { Answerer, ZoneAnswer, ZoneRecord } from './dns-server';
import {
  EDGE,
  FORMER,
  HOSTS,
  NAME_SERVERS,
  OLD_SERVERS,
  PARENT,
  PARKING,
  REGISTRY,
  SECOND,
  SHOAL,
  SITES,
  STAGING,
  hostFacts,
  otherHost,
  placesBefore,
  preferredHost,
  subdomainOf,
  tokenOf,
  type PracticeSite,
} from './sites';

/**
 * Which server speaks: the resolver, one of the two of the registry, one of the two of the old operator, or
 * that of the zone above.
 */
export type Speaker = 'resolver' | 'ns1' | 'ns2' | 'old1' | 'old2' | 'parent';
type Faults = (fault: string) => boolean;

const record = (name: string, type: string, value: string, ttl = 3600): ZoneRecord => ({
  name,
  type,
  ttl,
  value,
});
/** A key that looks like one, 2048 bits long. */
export const DKIM_KEY = `v=DKIM1; k=rsa; p=${'MIIBIjANBgkqhkiG9w0BAQEFAAOCAQ8AMIIBCgKCAQEA'.padEnd(390, 'Kf7Qw2LrT9')}AB`;
const DS = '12345 13 2 0f1e2d3c4b5a69788796a5b4c3d2e1f00f1e2d3c4b5a69788796a5b4c3d2e1f0';
const isMoving = (s: PracticeSite): boolean => s.traits.includes('moves') && s.stage !== 'launched';

/** The address that a site's name leads to today. */
function addressOf(s: PracticeSite, on: Faults, second: boolean): string {
  if (on('parked')) return PARKING;
  if (on('stale-server') && second) return FORMER;
  return s.stage !== 'launched' && s.replaces ? FORMER : s.address;
}

let turn = 0;
/** The records of one site's zone as one server has them; the second of two may be behind. */
function zoneOf(
  s: PracticeSite,
  on: Faults,
  second: boolean,
  servers: readonly { name: string }[],
): ZoneRecord[] {
  const d = s.domain,
    www = `www.${d}`;
  const here = addressOf(s, on, second);
  const ttl = on('long-ttl') ? 86_400 : 3600;
  const mail = s.traits.includes('no-mail') && !on('no-mail-open');
  const exchanger = on('mail-on-apex') ? d : `mail.${d}`;
  const records = [
    record(
      d,
      'SOA',
      `${servers[0]!.name} hostmaster.registry.example ${2026110 + Number(second)}1 ${on('soa-order') ? '3600 7200' : '7200 3600'} 1209600 3600`,
    ),
    ...servers.map((n) => record(d, 'NS', n.name, 86_400)),
    ...(on('apex-alias')
      ? [record(d, 'CNAME', EDGE[s.address]!)]
      : [record(d, 'A', here, ttl), ...(on('second-address') ? [record(d, 'A', FORMER, ttl)] : [])]),
    ...(on('stray-record') ? [record(d, 'AAAA', '2001:db8::77')] : []),
    s.traits.includes('flattened')
      ? record(www, 'A', turn++ % 2 ? SECOND[s.address]! : s.address, 60)
      : record(www, 'CNAME', d, ttl),
    record(d, 'MX', mail || on('mail-gone') ? '0 .' : `10 ${exchanger}`),
    on('mx-alias')
      ? record(`mail.${d}`, 'CNAME', 'mail.registry.example')
      : record(`mail.${d}`, 'A', '203.0.113.25'),
    record(d, 'TXT', mail ? 'v=spf1 -all' : 'v=spf1 mx -all'),
    ...(on('spf-two') ? [record(d, 'TXT', 'v=spf1 include:mail.registry.example ~all')] : []),
    ...(on('dmarc-gone')
      ? []
      : [
          record(`_dmarc.${d}`, 'TXT', on('spreading') && second ? 'v=DMARC1; p=none' : 'v=DMARC1; p=reject'),
        ]),
    record(`tide._domainkey.${d}`, 'TXT', on('dkim-gone') ? 'v=DKIM1; p=' : DKIM_KEY),
    record(d, 'CAA', on('caa-closed') ? '0 issue old-ca.example' : '0 issue ca.registry.example'),
    ...(on('token-gone') ? [] : [record(d, 'TXT', `sallow-domain-verification=${tokenOf(s)}`)]),
    record(subdomainOf(s), 'A', s.address),
    record(`shop.${d}`, 'CNAME', `${s.slug}.shops.registry.example`),
    ...placesBefore(s)
      .filter((p) => p.host.endsWith(`.${d}`))
      .map((p) => record(p.host, 'A', STAGING)),
    ...(s.traits.includes('signed')
      ? [record(d, 'DNSKEY', '257 3 13 c2FsbG93LWZpcnRoLXByYWN0aWNlLWtleQ==')]
      : []),
  ];
  // the other host without a record: the alias where that is www, the apex address where www is preferred
  if (!on('www-gone')) return records;
  const gone = otherHost(s);
  if (gone === www) return records.filter((x) => x.name !== www);
  return [
    ...records.filter((x) => !(x.name === d && x.type === 'A') && x.name !== www),
    record(preferredHost(s), 'A', here),
  ];
}

const FIXED: ZoneRecord[] = [
  ...[...NAME_SERVERS, ...OLD_SERVERS, PARENT].map((n) => record(n.name, 'A', n.address, 86_400)),
  record('example', 'NS', PARENT.name, 86_400),
  record('ns9.registry.example', 'A', '203.0.113.59'),
  record('rdap.registry.example', 'A', REGISTRY),
  record('ca.registry.example', 'A', REGISTRY),
  record('mail.registry.example', 'A', '203.0.113.25'),
  record('mail.registry.example', 'TXT', 'v=spf1 a -all'),
  record('firth-mail.example', 'MX', '10 mail.registry.example'),
  record(new URL(SHOAL).hostname, 'A', STAGING),
  ...HOSTS.map((h) => record(`www.${hostFacts(h.name).suffix}`, 'A', STAGING)),
  ...Object.entries(EDGE).flatMap(([address, name]) => [
    record(name, 'A', address),
    record(name, 'A', SECOND[address]!),
  ]),
  ...SITES.flatMap((s) =>
    placesBefore(s)
      .filter((p) => !p.host.endsWith(`.${s.domain}`))
      .map((p) => record(p.host, 'A', STAGING, 300)),
  ),
  ...SITES.map((s) =>
    record(
      `${s.slug}.${Object.entries(EDGE)
        .find(([a]) => a === s.address)![1]
        .replace('edge.', '')}`,
      'A',
      s.address,
    ),
  ),
];

/** A referral, as the zone above gives it: the name servers it knows, and their addresses. */
function referral(s: PracticeSite, type: string, on: Faults): ZoneAnswer {
  if (type === 'DS')
    return {
      rcode: 0,
      authoritative: true,
      records: s.traits.includes('signed') || on('ds-left') ? [record(s.domain, 'DS', DS)] : [],
    };
  const servers = isMoving(s) ? OLD_SERVERS : NAME_SERVERS;
  const names = on('delegation-differs')
    ? [servers[0].name, 'ns9.registry.example']
    : servers.map((n) => n.name);
  return {
    rcode: 0,
    authoritative: false,
    records: [],
    authority: names.map((n) => record(s.domain, 'NS', n, 86_400)),
    additional: servers
      .map((n, i) => record(n.name, 'A', on('stale-glue') && i === 1 ? '203.0.113.99' : n.address, 86_400))
      .filter((r) => names.includes(r.name)),
  };
}

/** Answers for one server. The resolver follows aliases and asks the first server of the zone. */
/** @param edit what a hand at the operator of the name servers changes */
export function answererFor(
  speaker: Speaker,
  on: (slug: string, environment: 'live' | 'staging', f: string) => boolean,
  edit: (zone: ZoneRecord[]) => ZoneRecord[] = (zone) => zone,
): Answerer {
  return (name, type, { checkingDisabled }) => {
    const site = SITES.find((s) => name === s.domain || name.endsWith(`.${s.domain}`));
    const faults: Faults = (f) => site !== undefined && on(site.slug, 'live', f);
    if (speaker === 'parent')
      return site
        ? referral(site, type, faults)
        : name === 'example'
          ? {
              rcode: 0,
              authoritative: true,
              records: FIXED.filter((r) => r.name === name && r.type === type),
            }
          : { rcode: 3, authoritative: true, records: [] };
    const old = speaker === 'old1' || speaker === 'old2';
    const moving = site !== undefined && isMoving(site);
    if (speaker !== 'resolver' && (!site || (old && !moving)))
      return { rcode: 5, authoritative: false, records: [] };
    if (speaker === 'ns2' && faults('lame-server')) return { rcode: 5, authoritative: false, records: [] };
    // a validating resolver has nothing to say of a broken signature, unless it is told not to look
    if (
      speaker === 'resolver' &&
      faults('bogus') &&
      name === site!.domain &&
      type === 'SOA' &&
      !checkingDisabled
    )
      return { rcode: 2, authoritative: false, records: [] };
    const servers = moving && (old || speaker === 'resolver') ? OLD_SERVERS : NAME_SERVERS;
    let zone = site ? edit(zoneOf(site, faults, speaker === 'ns2' || speaker === 'old2', servers)) : [];
    if (speaker === 'resolver' && faults('resolver-lags'))
      zone = zone.map((r) => (r.type === 'A' && r.name === site!.domain ? { ...r, value: FORMER } : r));
    if (speaker === 'resolver' && site && type === 'DS' && name === site.domain)
      return {
        ...referral(site, 'DS', faults),
        authoritative: false,
        authenticated: site.traits.includes('signed'),
      };
    const shop = site ? undefined : SITES.find((s) => name === `${s.slug}.shops.registry.example`);
    const owner = site ?? shop;
    const all = [
      ...zone,
      ...FIXED,
      ...(owner && !on(owner.slug, 'live', 'dangling-alias')
        ? [record(`${owner.slug}.shops.registry.example`, 'A', REGISTRY)]
        : []),
    ];
    const records: ZoneRecord[] = [];
    let at = name;
    for (let step = 0; step < 8; step++) {
      const here = all.filter((r) => r.name === at);
      const exact = here.filter((r) => r.type === type);
      records.push(...exact);
      const alias = here.find((r) => r.type === 'CNAME');
      if (exact.length || !alias || type === 'CNAME') break;
      records.push(alias);
      // an authority knows its own zone only
      if (speaker !== 'resolver' && !alias.value.endsWith(site!.domain)) break;
      at = alias.value;
    }
    const exists = all.some((r) => r.name === name || r.name.endsWith(`.${name}`));
    if (!exists && site?.traits.includes('wildcard'))
      return {
        rcode: 0,
        authoritative: speaker !== 'resolver',
        records: type === 'A' ? [record(name, 'A', site.address)] : [],
      };
    return {
      rcode: exists ? 0 : 3,
      authoritative: speaker !== 'resolver',
      authenticated: speaker === 'resolver' && site?.traits.includes('signed'),
      records,
    };
  };
}
