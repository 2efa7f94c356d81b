/** What the practice net's name servers say. */
import type { Answerer, ZoneAnswer, ZoneRecord } from './dns-server';
import { TIDEMARK_HOSTS } from './tidemark';
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
  environmentsBefore,
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
/** What hands change at registrar and DNS operator, beside the switches. */
export interface ZoneEdit {
  /** The zone as one server has it. */
  zone(zone: ZoneRecord[], site: PracticeSite, speaker: Speaker): ZoneRecord[];
  /** Whether the registrar was told the new name servers. */
  isMoved(site: PracticeSite): boolean;
}
const NO_EDIT: ZoneEdit = { zone: (zone) => zone, isMoved: () => false };

export const movesOnce = (s: PracticeSite): boolean => s.traits.includes('moves') && s.stage !== 'launched';

/** The address that a site's name leads to today. */
function addressOf(s: PracticeSite, on: Faults, second: boolean): string {
  if (on('parked')) return PARKING;
  if (on('stale-server') && second) return FORMER;
  return s.stage !== 'launched' && s.replaces ? FORMER : s.address;
}

let turn = 0;

/** One site's zone as one server has it. */
interface ZoneView {
  s: PracticeSite;
  on: Faults;
  /** The second of two servers, which may be behind. */
  second: boolean;
  servers: readonly { name: string }[];
}

function zoneOwn({ s, on, second, servers }: ZoneView): ZoneRecord[] {
  const serial = `${2026110 + Number(second)}1`;
  const times = on('soa-order') ? '3600 7200' : '7200 3600';
  return [
    record(
      s.domain,
      'SOA',
      `${servers[0]!.name} hostmaster.registry.example ${serial} ${times} 1209600 3600`,
    ),
    ...servers.map((n) => record(s.domain, 'NS', n.name, 86_400)),
  ];
}

/** Where the web is: the bare domain, www, and what stands beside them. */
function webRecords({ s, on, second }: ZoneView): ZoneRecord[] {
  const d = s.domain;
  const ttl = on('long-ttl') ? 86_400 : 3600;
  const apex = on('apex-alias')
    ? [record(d, 'CNAME', EDGE[s.address]!)]
    : [
        record(d, 'A', addressOf(s, on, second), ttl),
        ...(on('second-address') ? [record(d, 'A', FORMER, ttl)] : []),
      ];
  const www = s.traits.includes('flattened')
    ? record(`www.${d}`, 'A', turn++ % 2 ? SECOND[s.address]! : s.address, 60)
    : record(`www.${d}`, 'CNAME', d, ttl);
  return [...apex, ...(on('stray-record') ? [record(d, 'AAAA', '2001:db8::77')] : []), www];
}

function mailRecords({ s, on, second }: ZoneView): ZoneRecord[] {
  const d = s.domain;
  const isClosed = s.traits.includes('no-mail') && !on('no-mail-open');
  const exchanger = on('mail-on-apex') ? d : `mail.${d}`;
  const policy = on('spreading') && second ? 'v=DMARC1; p=none' : 'v=DMARC1; p=reject';
  return [
    record(d, 'MX', isClosed || on('mail-gone') ? '0 .' : `10 ${exchanger}`),
    on('mx-alias')
      ? record(`mail.${d}`, 'CNAME', 'mail.registry.example')
      : record(`mail.${d}`, 'A', '203.0.113.25'),
    record(d, 'TXT', isClosed ? 'v=spf1 -all' : 'v=spf1 mx -all'),
    ...(on('spf-two') ? [record(d, 'TXT', 'v=spf1 include:mail.registry.example ~all')] : []),
    ...(on('dmarc-gone') ? [] : [record(`_dmarc.${d}`, 'TXT', policy)]),
    ...(on('sts-without-policy') ? [record(`_mta-sts.${d}`, 'TXT', 'v=STSv1; id=20261201T080000;')] : []),
    ...(on('tls-reports-nowhere') ? [record(`_smtp._tls.${d}`, 'TXT', `v=TLSRPTv1; rua=reports@${d}`)] : []),
    record(`tide._domainkey.${d}`, 'TXT', on('dkim-gone') ? 'v=DKIM1; p=' : DKIM_KEY),
  ];
}

function otherRecords({ s, on }: ZoneView): ZoneRecord[] {
  const d = s.domain;
  return [
    record(d, 'CAA', on('caa-closed') ? '0 issue old-ca.example' : '0 issue ca.registry.example'),
    ...(on('token-gone') ? [] : [record(d, 'TXT', `sallow-domain-verification=${tokenOf(s)}`)]),
    record(subdomainOf(s), 'A', s.address),
    record(`shop.${d}`, 'CNAME', `${s.slug}.shops.registry.example`),
    ...environmentsBefore(s)
      .filter((p) => p.host.endsWith(`.${d}`))
      .map((p) => record(p.host, 'A', STAGING)),
    ...(s.traits.includes('signed')
      ? [record(d, 'DNSKEY', '257 3 13 c2FsbG93LWZpcnRoLXByYWN0aWNlLWtleQ==')]
      : []),
  ];
}

/** The records of one site's zone as one server has them. */
function zoneOf(view: ZoneView): ZoneRecord[] {
  const { s, on, second } = view;
  const records = [...zoneOwn(view), ...webRecords(view), ...mailRecords(view), ...otherRecords(view)];
  if (!on('www-gone')) return records;
  // the other host without a record: the alias where that is www, the apex address where www is preferred
  const www = `www.${s.domain}`;
  if (otherHost(s) === www) return records.filter((x) => x.name !== www);
  return [
    ...records.filter((x) => !(x.name === s.domain && x.type === 'A') && x.name !== www),
    record(preferredHost(s), 'A', addressOf(s, on, second)),
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
  ...TIDEMARK_HOSTS.map((host) => record(host, 'A', STAGING)),
  ...HOSTS.map((h) => record(`www.${hostFacts(h.name).suffix}`, 'A', STAGING)),
  ...Object.entries(EDGE).flatMap(([address, name]) => [
    record(name, 'A', address),
    record(name, 'A', SECOND[address]!),
  ]),
  ...SITES.flatMap((s) =>
    environmentsBefore(s)
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
function referral(s: PracticeSite, type: string, on: Faults, isMoving: boolean): ZoneAnswer {
  if (type === 'DS')
    return {
      rcode: 0,
      authoritative: true,
      records: s.traits.includes('signed') || on('ds-left') ? [record(s.domain, 'DS', DS)] : [],
    };
  const servers = isMoving ? OLD_SERVERS : NAME_SERVERS;
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

const REFUSED: ZoneAnswer = { rcode: 5, authoritative: false, records: [] };

type IsOn = (slug: string, environment: 'live' | 'staging', f: string) => boolean;

/** What the server of the zone above says. */
function parentAnswer(
  site: PracticeSite | undefined,
  name: string,
  type: string,
  { faults, isMoving }: { faults: Faults; isMoving: boolean },
): ZoneAnswer {
  if (site) return referral(site, type, faults, isMoving);
  if (name !== 'example') return { rcode: 3, authoritative: true, records: [] };
  const records = FIXED.filter((r) => r.name === name && r.type === type);
  return { rcode: 0, authoritative: true, records };
}

/** Whether a server does not answer for a zone: it never had it, or not any more. */
function refuses(speaker: Speaker, site: PracticeSite | undefined, faults: Faults): boolean {
  if (speaker === 'resolver') return false;
  const isOld = speaker === 'old1' || speaker === 'old2';
  // the old operator keeps the zone until it is deleted there
  return !site || (isOld && !movesOnce(site)) || (speaker === 'ns2' && faults('lame-server'));
}

/** What only a resolver says: nothing of a broken signature, and what it knows of the zone above. */
function resolverAnswer(
  site: PracticeSite,
  name: string,
  type: string,
  { faults, checkingDisabled }: { faults: Faults; checkingDisabled: boolean },
): ZoneAnswer | undefined {
  if (name !== site.domain) return undefined;
  // unless it is told not to look
  if (type === 'SOA' && faults('bogus') && !checkingDisabled)
    return { rcode: 2, authoritative: false, records: [] };
  if (type !== 'DS') return undefined;
  return {
    ...referral(site, 'DS', faults, false),
    authoritative: false,
    authenticated: site.traits.includes('signed'),
  };
}

/** A name's records of a type, through the aliases that lead there. @param within where an authority's knowledge ends */
function follow(
  all: readonly ZoneRecord[],
  name: string,
  type: string,
  within: string | undefined,
): ZoneRecord[] {
  const records: ZoneRecord[] = [];
  let at = name;
  for (let step = 0; step < 8; step++) {
    const here = all.filter((r) => r.name === at);
    const exact = here.filter((r) => r.type === type);
    records.push(...exact);
    const alias = here.find((r) => r.type === 'CNAME');
    if (exact.length || !alias || type === 'CNAME') break;
    records.push(alias);
    if (within !== undefined && !alias.value.endsWith(within)) break;
    at = alias.value;
  }
  return records;
}

const siteNamed = (name: string): PracticeSite | undefined =>
  SITES.find((s) => name === s.domain || name.endsWith(`.${s.domain}`));

/** What one server knows of a site's zone. */
function knownZone(speaker: Speaker, site: PracticeSite, faults: Faults, isMoving: boolean): ZoneRecord[] {
  const isOld = speaker === 'old1' || speaker === 'old2';
  const servers =
    movesOnce(site) && (isOld || (isMoving && speaker === 'resolver')) ? OLD_SERVERS : NAME_SERVERS;
  const second = speaker === 'ns2' || speaker === 'old2';
  return zoneOf({ s: site, on: faults, second, servers });
}

/** A zone as it is served: a resolver may be behind. */
function served(
  zone: ZoneRecord[],
  { domain }: PracticeSite,
  isResolver: boolean,
  faults: Faults,
): ZoneRecord[] {
  if (!isResolver || !faults('resolver-lags')) return zone;
  return zone.map((r) => (r.type === 'A' && r.name === domain ? { ...r, value: FORMER } : r));
}

/** The shop that a site's alias leads to. */
function shopRecords(site: PracticeSite | undefined, name: string, on: IsOn): ZoneRecord[] {
  const owner = site ?? SITES.find((s) => name === `${s.slug}.shops.registry.example`);
  return owner && !on(owner.slug, 'live', 'dangling-alias')
    ? [record(`${owner.slug}.shops.registry.example`, 'A', REGISTRY)]
    : [];
}

/**
 * Answers for one server. The resolver follows aliases and asks the first server of the zone.
 * @param edit what a hand at the operator of the name servers changes
 */
export function answererFor(speaker: Speaker, on: IsOn, edit: ZoneEdit = NO_EDIT): Answerer {
  const isResolver = speaker === 'resolver';
  return (name, type, { checkingDisabled }) => {
    const site = siteNamed(name);
    const faults: Faults = (f) => site !== undefined && on(site.slug, 'live', f);
    const isMoving = site !== undefined && movesOnce(site) && !edit.isMoved(site);
    if (speaker === 'parent') return parentAnswer(site, name, type, { faults, isMoving });
    if (refuses(speaker, site, faults)) return REFUSED;
    const special =
      isResolver && site ? resolverAnswer(site, name, type, { faults, checkingDisabled }) : undefined;
    if (special) return special;
    const zone = site
      ? served(edit.zone(knownZone(speaker, site, faults, isMoving), site, speaker), site, isResolver, faults)
      : [];
    return fromRecords([...zone, ...FIXED, ...shopRecords(site, name, on)], { name, type, site, isResolver });
  };
}

/** The answer that records give to a question. */
function fromRecords(
  all: readonly ZoneRecord[],
  of: { name: string; type: string; site: PracticeSite | undefined; isResolver: boolean },
): ZoneAnswer {
  const { name, type, site, isResolver } = of;
  const exists = all.some((r) => r.name === name || r.name.endsWith(`.${name}`));
  if (!exists && site?.traits.includes('wildcard')) {
    const records = type === 'A' ? [record(name, 'A', site.address)] : [];
    return { rcode: 0, authoritative: !isResolver, records };
  }
  return {
    rcode: exists ? 0 : 3,
    authoritative: !isResolver,
    authenticated: isResolver && site?.traits.includes('signed'),
    // an authority knows its own zone only
    records: follow(all, name, type, isResolver ? undefined : site!.domain),
  };
}

/** A site’s zone as the operator’s first server would have it, if nobody had saved another. */
export const zoneBefore = (site: PracticeSite, on: IsOn): ZoneRecord[] =>
  knownZone('ns1', site, (f) => on(site.slug, 'live', f), false);
