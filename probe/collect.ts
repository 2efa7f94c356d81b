/** Collects the evidence about one environment. Never judges. */
import { createHash } from 'node:crypto';
import type { AskedFor } from '#core/checks/engine/own-check';
import { asciiHost, normaliseUrl, registrableDomain } from '#core/extract/address';
import type { Brief } from '#core/facts/brief';
import { EVIDENCE_VERSION, type DnsAnswer, type Evidence, type HostEvidence } from '#core/facts/evidence';
import type { EnvironmentKind } from '#core/facts/situation';
import { addFromStyles, assetsToFetch, fetchAsset } from './assets';
import { compareFreshness, probeVariants } from './compare';
import { Crawler } from './crawl';
import { Dialer, type DialerOptions } from './dialer';
import { collectDns, type NamesToAsk } from './dns/authority';
import { extractHere, type Extract } from './extractor';
import { HttpClient, type Asked } from './http/client';
import { kindOf, passOf, secretsOf, withoutSecrets, type WayIn } from './http/way-in';
import { readHidden } from './hidden';
import { probeHost } from './hosts';
import { askLinks, linksToAsk } from './links';
import bundledBootstrap from './registration/bootstrap.json' with { type: 'json' };
import { collectRegistration, type Bootstrap } from './registration/rdap';
import {
  askPaths,
  fetchManifest,
  fetchRobots,
  fetchSitemaps,
  foldersOf,
  probeFolders,
  probeFormer,
  probePaths,
} from './site-files';
import { TrustStore } from './tls';

export interface Progress {
  phase: string;
  done: number;
  total: number;
  current?: string;
}

export interface CollectOptions extends DialerOptions {
  url: string;
  kind: EnvironmentKind;
  brief?: Brief;
  /** What the checklist's own checks need beside the rest. */
  asked?: AskedFor;
  /** How the auditor gets in; what is secret in it never reaches the evidence. */
  wayIn?: WayIn;
  /** PEM texts of further trusted roots. */
  ca?: readonly string[];
  store?: TrustStore;
  agent?: string;
  /** At most 5,000. */
  maxPages?: number;
  maxBytes?: number;
  /** Requests at once to one host, and the least time between two of them in milliseconds. */
  concurrency?: number;
  delayMs?: number;
  /**
   * Ask links to other sites and files loaded from other hosts for their head, whatever the checklist asks
   * for.
   */
  outside?: boolean;
  /** Seconds for the whole audit; what is not read by then is left unread. */
  auditSeconds?: number;
  retryPauseMs?: number;
  bootstrap?: Bootstrap;
  extract?: Extract;
  onProgress?: (p: Progress) => void;
  signal?: AbortSignal;
  clock?: () => Date;
}

export const AGENT = 'Armband/0.1 (site audit for the agency that looks after this site)';
export const MOST_PAGES = 5000;

/** The hosts an audit looks at: an environment's own, and on the live one the preferred and the others. */
export function hostsOf(url: string, kind: EnvironmentKind, brief: Brief): string[] {
  const own = new URL(url).hostname;
  if (kind !== 'live') return [own];
  return [...new Set(asciiHosts([brief.preferredHost, own, ...(brief.otherHosts ?? [])]))];
}

const asciiHosts = (hosts: readonly (string | undefined)[]): string[] =>
  hosts.map((h) => (h ? asciiHost(h) : undefined)).filter((h): h is string => h !== undefined);

/**
 * What to ask of DNS. Before the launch the live domain is looked at as well: its records and mail are about
 * to change.
 */
function namesToAsk(
  hosts: readonly string[],
  kind: EnvironmentKind,
  brief: Brief,
  asked: AskedFor['records'],
): NamesToAsk {
  const live = kind === 'live' ? [] : asciiHosts([brief.preferredHost, ...(brief.otherHosts ?? [])]);
  const zone = registrableDomain(live[0] ?? hosts[0]!);
  const mail = brief.contactEmail?.split('@').at(-1);
  return {
    hosts: [...new Set([...hosts, ...live])],
    zone,
    records: [
      ...(brief.records ?? []),
      ...(brief.currentRecords ?? []),
      ...asked.map((r) => ({ ...r, value: '' })),
    ],
    dkimSelectors: brief.dkimSelectors ?? [],
    ...(mail && asciiHost(mail) ? { mailDomain: asciiHost(mail) } : {}),
    knownSubdomains: asciiHosts(brief.knownSubdomains ?? []),
    coming: asciiHosts(brief.nameServers ?? []),
    // made up, and the same for the same zone, so that two audits ask the same
    randomLabel: `armband-${createHash('sha256')
      .update(zone ?? '')
      .digest('hex')
      .slice(0, 12)}`,
  };
}

/**
 * Looks at an environment from outside.
 * @throws DOMException AbortError when the signal says stop; RangeError for an address that is none;
 * everything else ends up in the evidence
 */
export async function collect(options: CollectOptions): Promise<Evidence> {
  const clock = options.clock ?? (() => new Date());
  const brief = options.brief ?? {};
  const { kind } = options;
  const base = normaliseUrl(options.url);
  if (!base) throw new RangeError(`“${options.url}” is no http or https address`);
  const baseUrl = new URL(base);
  const hosts = hostsOf(base, kind, brief);
  const own = new Set(hosts);
  const startedAt = clock().toISOString();
  const deadlineAt = performance.now() + (options.auditSeconds ?? 900) * 1000;
  const overdue = () => performance.now() > deadlineAt;
  const dialer = new Dialer(options);
  const store = options.store ?? new TrustStore(options.ca ?? []);
  const extract = options.extract ?? extractHere;
  const agent = options.agent ?? AGENT;
  const concurrency = options.concurrency ?? 6;
  const maxPages = Math.min(options.maxPages ?? 50, MOST_PAGES);
  const client = new HttpClient(dialer, store, {
    agent,
    timeoutMs: dialer.timeoutMs,
    maxBytes: options.maxBytes ?? 10 * 1024 * 1024,
    longestBody: 52_428_800,
    maxRedirects: 10,
    connections: concurrency,
    delayMs: options.delayMs,
    retryPauseMs: options.retryPauseMs ?? 1000,
    signal: options.signal,
    wayIn: options.wayIn,
  });
  // hosts are looked at as any visitor sees them: whether a door is shut shows from outside only
  const visitor =
    options.wayIn && 'hosts' in options.wayIn
      ? new HttpClient(dialer, store, { ...client.options, wayIn: undefined })
      : client;
  const say = options.onProgress ?? (() => {});
  const notes: string[] = [];
  const stopIfAsked = () => {
    if (options.signal?.aborted) throw new DOMException('The audit was stopped.', 'AbortError');
  };

  try {
    // the home page on the preferred host, where the brief names one that is not the address's own
    const homeUrl =
      kind === 'live' &&
      brief.preferredHost &&
      hosts[0] !== baseUrl.hostname &&
      baseUrl.pathname === '/' &&
      !baseUrl.port
        ? `https://${hosts[0]}/`
        : base;
    const origin = new URL(homeUrl).origin;
    const ask: Asked = { own: (h) => own.has(h) };
    const files = { client, origin, ask };
    const compared = { client, extract, ask };
    const selectors = options.asked?.selectors ?? [];
    const readPage: Extract = selectors.length
      ? (body, type, url) => extract(body, type, url, selectors)
      : extract;
    const crawler = new Crawler(client, {
      base: homeUrl,
      hosts: own,
      maxPages,
      concurrency,
      extract: readPage,
      deadline: overdue,
      onPage: (done, total, current) => say({ phase: 'Pages', done, total, current }),
      signal: options.signal,
    });
    crawler.add(homeUrl, 'home');

    const stagingHosts =
      kind === 'live'
        ? asciiHosts(brief.stagingHosts ?? [])
            .filter((h) => !own.has(h))
            .slice(0, 8)
        : [];
    const looked: [string, HostEvidence['role']][] = [
      ...hosts.map((h, i): [string, HostEvidence['role']] => [
        h,
        kind === 'before' ? 'environment' : i === 0 ? 'preferred' : 'other',
      ]),
      ...stagingHosts.map((h): [string, HostEvidence['role']] => [h, 'staging']),
    ];
    say({ phase: 'Names and hosts', done: 0, total: looked.length });
    let hostsDone = 0;
    const hostsTask = Promise.all(
      looked.map(async ([host, role]) => {
        const h = await probeHost(
          { client: visitor, dialer, store, extract, kind, base: baseUrl, own },
          host,
          role,
        );
        say({ phase: 'Names and hosts', done: ++hostsDone, total: looked.length, current: host });
        return h;
      }),
    );
    const dnsTask = collectDns(dialer, namesToAsk(hosts, kind, brief, options.asked?.records ?? []));
    const registrable = registrableDomain(hosts[0]!);
    const live = kind === 'live';
    const registrationTask =
      registrable && live
        ? collectRegistration(
            client,
            options.bootstrap ?? (bundledBootstrap as unknown as Bootstrap),
            registrable,
          )
        : null;
    const probeTask = live ? probePaths(files, brief) : { notFound: null, paths: [], tokenFiles: [] };
    const subdomainTask = live
      ? Promise.all(
          asciiHosts(brief.knownSubdomains ?? [])
            .filter((h) => !own.has(h))
            .slice(0, 30)
            .map(async (host) => ({
              host,
              chain: (
                await client.follow(`https://${host}/`, {
                  own: (h) => own.has(h) || h === host,
                  method: 'HEAD',
                })
              ).chain,
            })),
        )
      : [];
    const askedTask = options.asked?.paths.length ? askPaths(files, options.asked.paths) : undefined;
    const formerTask = live ? probeFormer(files, brief) : [];
    const pass = live ? passOf(brief.holding?.bypass, origin, hosts) : undefined;
    const bypassTask = pass ? tryBypass(dialer, store, client, pass.url, pass.wayIn, extract, ask) : null;

    const robots = await fetchRobots(files);
    const sitemaps = await fetchSitemaps(files, robots, homeUrl);
    stopIfAsked();
    for (const path of brief.requiredPages ?? []) crawler.add(live ? path : path.replace(/^\//, ''), 'brief');
    for (const map of sitemaps)
      if (map.facts && map.facts.kind !== 'index')
        for (const { loc } of map.facts.urls) crawler.add(loc, 'sitemap');
    await crawler.run();
    stopIfAsked();

    const pages = crawler.pages.sort((a, b) =>
      a.via === 'home' ? -1 : b.via === 'home' ? 1 : a.depth - b.depth || compare(a.requested, b.requested),
    );
    const unread = crawler.unread;
    const list = assetsToFetch(pages, own, homeUrl, options.outside);
    const manifestLink = pages
      .find((p) => p.via === 'home')
      ?.facts?.links.find((l) => l.rel.includes('manifest'));
    const manifest = await fetchManifest(files, manifestLink?.href);
    for (const icon of manifest?.facts?.icons ?? []) list.add(icon.src, 'manifest-icon');
    let assetsDone = 0;
    const fetchAll = (urls: readonly string[]) =>
      Promise.all(
        urls.map(async (url) => {
          const asset = await fetchAsset(client, url, list.wanted.get(url)!);
          say({ phase: 'Files', done: ++assetsDone, total: list.wanted.size, current: url });
          return asset;
        }),
      );
    const first = await fetchAll([...list.wanted.keys()]);
    const assets = [
      ...first,
      ...(await fetchAll(
        addFromStyles(
          list,
          first.filter((a) => a.css),
          own,
        ),
      )),
    ];
    stopIfAsked();

    const linkRules = {
      within: (url: string) => crawler.within(url),
      own: (h: string) => own.has(h),
      outside: Boolean(options.outside || options.asked?.outsideLinks),
      asked: crawler.detours.map((d) => d.url),
    };
    const folders = live
      ? foldersOf([...assets.map((a) => a.url)], new Set(pages.map((p) => p.url)), origin)
      : [];
    say({ phase: 'Links and comparisons', done: 0, total: 1 });
    const [
      links,
      folderProbes,
      variants,
      freshness,
      hostEvidence,
      subdomains,
      dns,
      registration,
      probes,
      former,
      bypass,
      askedPaths,
      hidden,
    ] = await Promise.all([
      askLinks(client, linksToAsk(pages, unread, linkRules), linkRules.own),
      probeFolders(files, folders),
      live ? probeVariants(compared, pages) : [],
      live ? compareFreshness(compared, pages) : [],
      hostsTask,
      subdomainTask,
      dnsTask,
      registrationTask,
      probeTask,
      formerTask,
      bypassTask,
      askedTask,
      live ? readHidden(files, extract, brief, pages) : [],
    ]);
    stopIfAsked();

    if (unread.length)
      notes.push(
        overdue()
          ? 'The time for one audit ran out before every page was read.'
          : `The page limit was reached: ${pages.length} of ${pages.length + unread.length} pages were read.`,
      );
    if (crawler.endless)
      notes.push('Some addresses count up without end, as a calendar’s do; they were not followed further.');
    const evidence: Evidence = {
      version: EVIDENCE_VERSION,
      agent,
      target: { url: base, hosts, registrable, kind, wayIn: kindOf(options.wayIn) },
      startedAt,
      finishedAt: clock().toISOString(),
      dns: { ...dns, answers: [...dialer.answers].sort(inOrder) },
      hosts: hostEvidence,
      subdomains,
      robots,
      sitemaps,
      pages,
      unread,
      assets,
      links: [...crawler.detours, ...links],
      ...probes,
      ...(askedPaths ? { asked: askedPaths } : {}),
      folders: folderProbes,
      former,
      variants,
      freshness,
      manifest,
      bypass,
      registration,
      notes,
      ...(hidden.length ? { hidden } : {}),
    };
    return withoutSecrets(evidence, [...secretsOf(options.wayIn), ...secretsOf(pass?.wayIn)]);
  } finally {
    await Promise.all([client.close(), visitor.close()]);
  }
}

/** By code units: the same everywhere, and quick. */
const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
const orderOf = (a: DnsAnswer): string => `${a.role} ${a.name} ${a.type} ${a.server} ${a.unchecked ? 1 : 0}`;
const inOrder = (a: DnsAnswer, b: DnsAnswer): number => compare(orderOf(a), orderOf(b));

/**
 * The holding page with the brief's way past it, by a client of its own: no other request carries that key.
 */
async function tryBypass(
  dialer: Dialer,
  store: TrustStore,
  client: HttpClient,
  url: string,
  wayIn: WayIn,
  extract: Extract,
  ask: Asked,
): Promise<Evidence['bypass']> {
  const own = new HttpClient(dialer, store, { ...client.options, wayIn });
  try {
    const { chain, body } = await own.follow(url, ask);
    const type = chain.hops.at(-1)?.headers.find(([n]) => n.toLowerCase() === 'content-type')?.[1];
    const facts =
      body && /html/i.test(type ?? '')
        ? await Promise.resolve(extract(body, type, url)).then(
            (r) => r.facts,
            () => undefined,
          )
        : undefined;
    const title = facts?.titles[0]?.text;
    return { chain, ...(title ? { title } : {}) };
  } finally {
    await own.close();
  }
}
