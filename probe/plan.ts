/** What an audit is going to look at, before it looks. */
import { createHash } from 'node:crypto';
import type { AskedFor } from '#core/facts/asked-for';
import { asciiHost, normaliseUrl, parseUrl, registrableDomain } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import type { HostEvidence } from '#core/facts/evidence';
import type { HostProfile } from '#core/facts/host-profile';
import { completeBrief } from '#core/facts/host-records';
import { MOST_PAGES, USUAL_PAGES } from '#core/facts/page-limit';
import type { EnvironmentKind } from '#core/facts/situation';
import type { NamesToAsk } from './dns/authority';
import { passOf } from './http/access';

const MOST_STAGING_HOSTS = 8;
const MOST_SUBDOMAINS = 30;

/** What is known of an environment beforehand. */
export interface Target {
  url: string;
  kind: EnvironmentKind;
  brief?: Brief;
  /** Its records are looked up where the brief names none. */
  profile?: HostProfile;
  /** Where the site is live or will be, where the brief names no preferred host. */
  liveHost?: string;
  /** What the checklist's own checks need beside the rest. */
  asked?: AskedFor;
  /** At most 5,000. */
  maxPages?: number;
}

export interface Plan {
  kind: EnvironmentKind;
  isLive: boolean;
  brief: Brief;
  /** The audited address. */
  base: string;
  baseUrl: URL;
  /** The home page: on the preferred host, where the brief names one that is not the address's own. */
  homeUrl: string;
  origin: string;
  hosts: string[];
  own: ReadonlySet<string>;
  registrable: string | null;
  /** All hosts that are looked at from outside, staging's beside the live one among them. */
  looked: [host: string, role: HostEvidence['role']][];
  subdomains: string[];
  names: NamesToAsk;
  selectors: readonly string[];
  askedPaths: readonly string[];
  askOutside: boolean;
  maxPages: number;
  /** The brief's way past a holding page. */
  pass: ReturnType<typeof passOf>;
}

/** Ports that may be dialled for an audit: those of the web, and the one that its address names. */
export function portsOf({ url }: Pick<Target, 'url'>): number[] {
  const port = Number(parseUrl(url)?.port);
  return [80, 443, ...(port ? [port] : [])];
}

/** The hosts an audit looks at: an environment's own, and on the live one the preferred and the others. */
export function hostsOf(url: string, kind: EnvironmentKind, brief: Brief): string[] {
  const own = new URL(url).hostname;
  if (kind !== 'live') return [own];
  return [...new Set([...hostNames([brief.preferredHost]), own, ...hostNames(brief.otherHosts)])];
}

/**
 * The other form of the live host, with www or without, which half of the visitors type: it is asked whether or
 * not the brief knows it, unless the brief says that it is not used.
 */
function impliedHost(hosts: readonly string[], brief: Brief): string | undefined {
  const [main = ''] = hosts;
  const apex = registrableDomain(main);
  const other =
    apex === null ? undefined : main === apex ? `www.${apex}` : main === `www.${apex}` ? apex : undefined;
  const isKnown =
    other === undefined || hosts.includes(other) || hostNames(brief.unusedHosts).includes(other);
  return isKnown ? undefined : other;
}

/** Those that are host names, as A-labels. */
const hostNames = (hosts: readonly (string | undefined)[] = []): string[] =>
  hosts.flatMap((h) => (h ? (asciiHost(h) ?? []) : []));

/** A label that nobody has set, and the same for the same zone, so that two audits ask the same. */
const randomLabelFor = (zone: string | null): string =>
  `armband-${createHash('sha256')
    .update(zone ?? '')
    .digest('hex')
    .slice(0, 12)}`;

/**
 * What to ask of DNS. Before the launch the live domain is looked at as well: its records and mail are about
 * to change.
 */
function namesToAsk(
  hosts: readonly string[],
  isLive: boolean,
  brief: Brief,
  asked: AskedFor['records'],
): NamesToAsk {
  const live = isLive ? [] : hostNames([brief.preferredHost, ...(brief.otherHosts ?? [])]);
  const zone = registrableDomain(live[0] ?? hosts[0]!);
  const [mailDomain] = hostNames([brief.contactEmail?.split('@').at(-1)]);
  return {
    hosts: [...new Set([...hosts, ...live])],
    zone,
    records: [
      ...(brief.records ?? []),
      ...(brief.currentRecords ?? []),
      ...asked.map((r) => ({ ...r, value: '' })),
    ],
    dkimSelectors: brief.dkimSelectors ?? [],
    ...(mailDomain ? { mailDomain } : {}),
    knownSubdomains: hostNames(brief.knownSubdomains),
    coming: hostNames(brief.nameServers),
    randomLabel: randomLabelFor(zone),
  };
}

/** Which hosts are looked at, and as what. */
function lookedAt(
  hosts: readonly string[],
  implied: string | undefined,
  { isLive, brief }: { isLive: boolean; brief: Brief },
): Plan['looked'] {
  const roleOf = (i: number): HostEvidence['role'] => (!isLive ? 'environment' : i ? 'other' : 'preferred');
  const staging = isLive ? hostNames(brief.stagingHosts).filter((h) => !hosts.includes(h)) : [];
  return [
    ...hosts.map((h, i): Plan['looked'][number] => [h, roleOf(i)]),
    ...(implied === undefined ? [] : [[implied, 'implied'] as Plan['looked'][number]]),
    ...staging.slice(0, MOST_STAGING_HOSTS).map((h): Plan['looked'][number] => [h, 'staging']),
  ];
}

/** The home page: on the preferred host, where the brief names one that is not the address's own. */
function homeUrlFor(base: URL, preferred: string | undefined): string {
  const isElsewhere = preferred !== undefined && preferred !== base.hostname;
  return isElsewhere && base.pathname === '/' && !base.port ? `https://${preferred}/` : base.href;
}

const NOTHING: AskedFor = { selectors: [], records: [], paths: [], outsideLinks: false };

/** What only the live site has. */
function liveParts(brief: Brief, origin: string, hosts: string[]): Pick<Plan, 'subdomains' | 'pass'> {
  const others = hostNames(brief.knownSubdomains).filter((h) => !hosts.includes(h));
  return {
    subdomains: others.slice(0, MOST_SUBDOMAINS),
    pass: passOf(brief.holding?.bypass, origin, hosts),
  };
}

/** @throws RangeError for an address that is none */
export function planOf(target: Target, outside = false): Plan {
  const { kind, asked = NOTHING } = target;
  const base = normaliseUrl(target.url);
  if (!base) throw new RangeError(`“${target.url}” is no http or https address`);
  const baseUrl = new URL(base);
  const isLive = kind === 'live';
  const brief = completeBrief(target.brief ?? {}, target.profile, target.liveHost ?? baseUrl.hostname);
  const hosts = hostsOf(base, kind, brief);
  const homeUrl = homeUrlFor(baseUrl, isLive ? brief.preferredHost && hosts[0] : undefined);
  const { origin } = new URL(homeUrl);
  const implied = isLive ? impliedHost(hosts, brief) : undefined;
  const all = implied === undefined ? hosts : [...hosts, implied];
  return {
    kind,
    isLive,
    brief,
    base,
    baseUrl,
    homeUrl,
    origin,
    hosts,
    own: new Set(all),
    registrable: registrableDomain(hosts[0]!),
    looked: lookedAt(hosts, implied, { isLive, brief }),
    names: namesToAsk(all, isLive, brief, asked.records),
    selectors: asked.selectors,
    askedPaths: asked.paths,
    askOutside: outside || asked.outsideLinks,
    maxPages: Math.min(target.maxPages ?? USUAL_PAGES, MOST_PAGES),
    ...(isLive ? liveParts(brief, origin, hosts) : { subdomains: [], pass: undefined }),
  };
}
