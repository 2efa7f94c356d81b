/** Collects the evidence about one environment. Never judges. */
import { setMaxListeners } from 'node:events';
import limitedTo from 'p-limit';
import { shownFacts } from '#core/extract/shell';
import {
  EVIDENCE_VERSION,
  headerValues,
  lastAnswer,
  type AssetEvidence,
  type DnsAnswer,
  type Evidence,
} from '#core/facts/evidence';
import { addFromStyles, assetsToFetch, fetchAsset, type AssetList } from './assets';
import { builtAddresses } from '#core/compare/build';
import { readBuilt } from './built';
import { compareFreshness, probeVariants } from './compare';
import { Crawler, HAS_EFFECT } from './crawl';
import { Dialer, type DialerOptions } from './dialer';
import { collectDns } from './dns/authority';
import { extractHere, type Extract } from './extractor';
import { readFileHere, type ReadFile } from './file-reader';
import { HttpClient, type Asked } from './http/client';
import type { HostGate } from './http/host-gate';
import { isDeepStrictEqual } from 'node:util';
import { timesOf } from '#core/facts/part-times';
import { blankEvidence } from '#core/facts/blank-evidence';
import { PARTS, type Part } from '#core/facts/parts';
import { Budget } from './http/budget';
import { kindOf, secretsOf, accessFault, withoutSecrets, type Access } from './http/access';
import { ProbeError } from './network-error';
import { readHidden } from './hidden';
import { probeHost } from './hosts';
import { askLinks, linksToAsk } from './links';
import { planOf, portsOf, type Plan, type Target } from './plan';
import bundledBootstrap from './registration/bootstrap.json' with { type: 'json' };
import { pagesToRender } from './rendering/choose';
import { PageRenderer, render, type RenderOptions } from './rendering/render';
import { collectStsPolicy } from './mta-sts';
import { collectRegistration, type Bootstrap } from './registration/rdap';
import {
  askPaths,
  fetchManifest,
  fetchRobots,
  fetchSitemaps,
  fetchVouching,
  foldersOf,
  probeFolders,
  probeFormer,
  probePaths,
  SITEMAP_TOTAL_URLS,
  type SiteFiles,
} from './site-files';
import { TrustStore } from './tls';

interface Progress {
  phase: string;
  done: number;
  total: number;
  current?: string;
}

export interface CollectOptions extends DialerOptions, Target {
  /** How the auditor gets in; what is secret in it never reaches the evidence. */
  access?: Access;
  /** PEM texts of further trusted roots. */
  ca?: readonly string[];
  store?: TrustStore;
  agent?: string;
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
  /** Whoever else asks the same hosts. */
  gate?: HostGate;
  bootstrap?: Bootstrap;
  extract?: Extract;
  /** Paths of the uploaded build: what nothing leads to is asked for by its name (live only). */
  build?: readonly string[];
  /** Let a browser look at pages; without it none does. */
  render?: RenderOptions;
  /** Reads style sheets, pictures and sitemaps; here when left out. */
  readFile?: ReadFile;
  onProgress?: (p: Progress) => void;
  signal?: AbortSignal;
  clock?: () => Date;
  /** Look at some of it again; the rest is taken from what was seen before. */
  again?: Again;
}

/** What is looked at again. */
export interface Again {
  parts: readonly Part[];
  /** These pages alone, where `pages` is not among the parts. */
  pages?: readonly string[];
  /** What was seen before, of the same target; without it, the other parts are left empty. */
  before?: Evidence;
}

/** Whether what was seen before is of the same hosts, reached in the same way, so that a part of it can be renewed. */
export function canRenew(before: Evidence, options: Pick<CollectOptions, 'access'> & Target): boolean {
  const target = targetOf(planOf(options), options.access);
  return before.version === EVIDENCE_VERSION && isDeepStrictEqual(before.target, target);
}

const targetOf = (
  { base: url, hosts, registrable, kind }: Plan,
  access: Access | undefined,
): Evidence['target'] => ({ url, hosts, registrable, kind, wayIn: kindOf(access) });

export const AGENT = 'Armband/0.1 (site audit for the agency that looks after this site)';
const USUAL_CONCURRENCY = 6;
const USUAL_SECONDS = 900;
const MOST_BYTES = 10 * 1024 * 1024;
/** Sitemaps may be as long as their standard says. */
const LONGEST_BODY = 52_428_800;

/** What every phase works with. */
interface Tools {
  dialer: Dialer;
  store: TrustStore;
  extract: Extract;
  readFile: ReadFile;
  client: HttpClient;
  /** Without the key: whether a door is shut shows from outside only. */
  visitor: HttpClient;
  budget: Budget;
}

function toolsFor(options: CollectOptions): Tools {
  const dialer = new Dialer({ ...options, ports: portsOf(options) });
  const budget = new Budget();
  const store = options.store ?? new TrustStore(options.ca ?? []);
  const client = new HttpClient(dialer, store, {
    agent: options.agent ?? AGENT,
    timeoutMs: dialer.timeoutMs,
    maxBytes: options.maxBytes ?? MOST_BYTES,
    longestBody: LONGEST_BODY,
    maxRedirects: 10,
    connections: options.concurrency ?? USUAL_CONCURRENCY,
    delayMs: options.delayMs,
    retryPauseMs: options.retryPauseMs ?? 1000,
    signal: options.signal,
    access: options.access,
    gate: options.gate,
    budget,
  });
  const hasKey = options.access && 'origins' in options.access;
  const visitor = hasKey ? new HttpClient(dialer, store, { ...client.options, access: undefined }) : client;
  const { extract = extractHere, readFile = readFileHere } = options;
  return { dialer, store, extract, readFile, client, visitor, budget };
}

/** Past the time for reading pages, what is left is looked at in half as long again, or so; then nothing more is asked. */
const GRACE_MS = 60_000;
/** And after so much longer the collecting is over, whatever still waits. */
const LAST_MS = 20_000;

/**
 * Looks at an environment from outside. Once its time is over nothing more is asked, and the evidence is what
 * there is by then.
 * @throws DOMException AbortError when the signal says stop; RangeError for an address or a way in that is none;
 * Error when it did not come to its end even then. Everything else ends up in the evidence
 */
export async function collect(options: CollectOptions): Promise<Evidence> {
  const plan = planOf(options, options.outside);
  const fault = options.access && accessFault(options.access);
  if (fault) throw new RangeError(fault);
  const halt = new AbortController();
  setMaxListeners(0, halt.signal);
  const stopped = (): DOMException => new DOMException('The audit was stopped.', 'AbortError');
  const tools = toolsFor({ ...options, signal: halt.signal });
  const readingMs = (options.auditSeconds ?? USUAL_SECONDS) * 1000;
  const timeMs = readingMs + Math.min(GRACE_MS, readingMs / 2);
  const over = new ProbeError('stopped', 'the time for one audit was over');
  const timer = setTimeout(() => halt.abort(over), timeMs);
  let lastTimer: NodeJS.Timeout | undefined;
  let stop = (): void => {};
  const ended = new Promise<never>((_, reject) => {
    stop = () => {
      halt.abort(stopped());
      reject(stopped());
    };
    lastTimer = setTimeout(
      () => reject(new Error('The audit did not come to its end in time.')),
      timeMs + LAST_MS,
    );
  });
  if (options.signal?.aborted) stop();
  options.signal?.addEventListener('abort', stop, { once: true });
  try {
    return await Promise.race([new Collection(options, plan, tools, halt.signal).run(), ended]);
  } finally {
    clearTimeout(timer);
    clearTimeout(lastTimer);
    options.signal?.removeEventListener('abort', stop);
    halt.abort(stopped());
    await Promise.all([tools.client.close(), tools.visitor.close()]);
  }
}

/** A failure that comes before it is awaited is one of the audit, and not of the process. */
function awaitedLater<T>(work: Promise<T>): Promise<T> {
  work.catch(() => {});
  return work;
}

/** One collecting: its phases in their order, and what they leave for each other. */
class Collection {
  private readonly clock: () => Date;
  private readonly startedAt: string;
  private readonly deadline: number;
  private readonly ask: Asked;
  private readonly files: SiteFiles;
  /** What is looked at now, and what is taken over. */
  private readonly looks: ReadonlySet<Part>;
  private readonly before: Evidence;

  constructor(
    private readonly options: CollectOptions,
    private readonly plan: Plan,
    private readonly tools: Tools,
    /** Aborted when nothing more is to be asked. */
    private readonly halt: AbortSignal,
  ) {
    this.clock = options.clock ?? (() => new Date());
    this.startedAt = this.clock().toISOString();
    this.deadline = performance.now() + (options.auditSeconds ?? USUAL_SECONDS) * 1000;
    this.ask = { own: (h) => plan.own.has(h) };
    this.files = { client: tools.client, origin: plan.origin, ask: this.ask, readFile: tools.readFile };
    const { again, access } = options;
    this.looks = new Set(again?.parts ?? PARTS);
    this.before = again?.before ?? blankEvidence(targetOf(plan, access), this.startedAt);
  }

  async run(): Promise<Evidence> {
    const infrastructure = awaitedLater(this.probeInfrastructure());
    const read = await this.readPages();
    this.stopIfAsked();
    const rendering = awaitedLater(this.render(read.pages));
    const files = await this.readFiles(read);
    this.stopIfAsked();
    const compared = await this.compare(read, files.assets);
    const found = await infrastructure;
    const rendered = await rendering;
    this.stopIfAsked();
    return this.evidence(read, files, compared, { ...found, rendered });
  }

  private say(progress: Progress): void {
    this.options.onProgress?.(progress);
  }

  private stopIfAsked(): void {
    if (this.options.signal?.aborted) throw new DOMException('The audit was stopped.', 'AbortError');
  }

  private isOverdue(): boolean {
    return performance.now() > this.deadline || this.halt.aborted;
  }

  /** What needs no page to begin with, all at once: names, hosts, registration, paths asked for by name. */
  private async probeInfrastructure() {
    const { plan, tools, files } = this;
    const { dialer } = tools;
    const { brief, isLive } = plan;
    const { before, looks } = this;
    const { notFound, notFoundSample, notFoundTitle, paths, tokenFiles } = before;
    const known = { notFound, notFoundSample, notFoundTitle, paths, tokenFiles };
    const http = looks.has('http');
    const [hosts, dns, registration, probes, subdomains, asked, former, bypass, mtaSts] = await Promise.all([
      this.probeHosts(),
      looks.has('dns') ? collectDns(dialer, plan.names) : before.dns,
      looks.has('registration') ? this.askRegistration() : before.registration,
      !http ? known : isLive ? probePaths(files, brief) : { notFound: null, paths: [], tokenFiles: [] },
      http ? Promise.all(plan.subdomains.map((host) => this.askSubdomain(host))) : before.subdomains,
      !http ? before.asked : plan.askedPaths.length ? askPaths(files, plan.askedPaths) : undefined,
      !http ? before.former : isLive ? probeFormer(files, brief) : [],
      !http ? before.bypass : plan.pass ? this.tryBypass(plan.pass) : null,
      http ? this.askStsPolicy() : before.mtaSts,
    ]);
    return { hosts, dns, registration, probes, subdomains, asked, former, bypass, mtaSts };
  }

  /** Hosts are looked at as any visitor sees them. */
  private probeHosts(): Promise<Evidence['hosts']> | Evidence['hosts'] {
    const { looked, kind, baseUrl, own } = this.plan;
    const { visitor: client, dialer, store, extract } = this.tools;
    const { before, looks } = this;
    if (!looks.has('tls') && !looks.has('http')) return before.hosts;
    const part = !looks.has('http') ? 'tls' : !looks.has('tls') ? 'http' : undefined;
    let done = 0;
    this.say({ phase: 'Names and hosts', done, total: looked.length });
    return Promise.all(
      looked.map(async ([host, role]) => {
        const known = before.hosts.find((h) => h.host === host);
        const found = await probeHost(
          { client, dialer, store, extract, kind, base: baseUrl, own },
          host,
          role,
          part && known && { part, before: known },
        );
        this.say({ phase: 'Names and hosts', done: ++done, total: looked.length, current: host });
        return found;
      }),
    );
  }

  private askRegistration(): Promise<Evidence['registration']> | null {
    const { isLive, registrable } = this.plan;
    const bootstrap = this.options.bootstrap ?? (bundledBootstrap as unknown as Bootstrap);
    return isLive && registrable ? collectRegistration(this.tools.client, bootstrap, registrable) : null;
  }

  private askStsPolicy(): Promise<Evidence['mtaSts']> | null {
    const { isLive, names } = this.plan;
    return isLive && names.zone ? collectStsPolicy(this.tools, names.zone) : null;
  }

  private async askSubdomain(host: string): Promise<Evidence['subdomains'][number]> {
    const own = (h: string): boolean => this.plan.own.has(h) || h === host;
    const { chain } = await this.tools.client.follow(`https://${host}/`, { own, method: 'HEAD' });
    return { host, chain };
  }

  /**
   * The holding page with the brief's way past it, by a client of its own: no other request carries that key.
   */
  private async tryBypass({ url, access }: NonNullable<Plan['pass']>): Promise<Evidence['bypass']> {
    const { dialer, store, client, extract } = this.tools;
    const own = new HttpClient(dialer, store, { ...client.options, access });
    try {
      const { chain, body } = await own.follow(url, this.ask);
      const type = headerValues(lastAnswer(chain), 'content-type')[0];
      if (!body || !/html/i.test(type ?? '')) return { chain };
      const read = await Promise.resolve(extract(body, type, url)).catch(() => undefined);
      const title = read?.facts.titles[0]?.text;
      return { chain, ...(title ? { title } : {}) };
    } finally {
      await own.close();
    }
  }

  /** What renders pages that scripts build, where there is a browser. */
  private renderer(): PageRenderer | undefined {
    const { options, plan, tools } = this;
    return (
      options.render &&
      new PageRenderer(options.render, {
        dialer: tools.dialer,
        extract: tools.extract,
        selectors: plan.selectors,
        access: options.access,
        gate: options.gate,
        ids: plan.brief.analyticsIds ?? [],
        signal: this.halt,
      })
    );
  }

  /** robots.txt, sitemaps, and the pages that they, the brief and links lead to. */
  private async readPages() {
    const { plan, tools, options } = this;
    const { homeUrl, selectors } = plan;
    const readPage: Extract = selectors.length
      ? (body, type, url) => tools.extract(body, type, url, selectors)
      : tools.extract;
    const renderer = this.renderer();
    const crawler = new Crawler(tools.client, {
      base: homeUrl,
      render: renderer && ((url) => renderer.render(url)),
      hosts: plan.own,
      maxPages: plan.maxPages,
      concurrency: options.concurrency ?? USUAL_CONCURRENCY,
      extract: readPage,
      deadline: () => this.isOverdue(),
      onPage: (done, total, current) => this.say({ phase: 'Pages', done, total, current }),
      signal: this.halt,
      stay: !this.looks.has('pages'),
    });
    try {
      return await this.crawl(crawler);
    } finally {
      await renderer?.close();
    }
  }

  private async crawl(crawler: Crawler) {
    const { brief, homeUrl, isLive } = this.plan;
    if (this.looks.has('pages')) crawler.add(homeUrl, 'home');
    const { before, looks } = this;
    const texts = { crawler, ...(await this.readTexts()) };
    const { sitemaps } = texts;
    if (!looks.has('pages'))
      return { ...texts, pages: await this.readSome(crawler, before.pages), unread: before.unread };
    this.stopIfAsked();
    // on staging the base may have a path, and required pages lie below it
    for (const path of brief.requiredPages ?? [])
      crawler.add(isLive ? path : path.replace(/^\//, ''), 'brief');
    for (const { facts } of sitemaps)
      if (facts && facts.kind !== 'index') for (const { loc } of facts.urls) crawler.add(loc, 'sitemap');
    await crawler.run();
    return {
      ...texts,
      pages: crawler.pages.sort(byDepth),
      unread: crawler.unread,
    };
  }

  /** robots.txt, the sitemaps, and what vouches for them. */
  private async readTexts() {
    const { before, files, plan } = this;
    if (!this.looks.has('files')) {
      const { robots, sitemaps, vouching = [] } = before;
      return { robots, sitemaps, vouching };
    }
    const robots = await fetchRobots(files);
    const sitemaps = await fetchSitemaps(files, robots, plan.homeUrl);
    return { robots, sitemaps, vouching: await fetchVouching(files, sitemaps) };
  }

  /** Some pages again, each in the place that it had; those that were not read before come at the end. */
  private async readSome(crawler: Crawler, known: Evidence['pages']): Promise<Evidence['pages']> {
    const { pages = [] } = this.options.again ?? {};
    if (!pages.length) return known;
    const requested = new Map(known.map((p) => [p.url, p.requested]));
    for (const url of pages) crawler.add(requested.get(url) ?? url, 'brief');
    await crawler.run();
    const readAt = this.clock().toISOString();
    const fresh = new Map(crawler.pages.map((p) => [p.requested, { ...p, readAt }]));
    const renewed = known.map((p) => {
      const again = fresh.get(p.requested);
      fresh.delete(p.requested);
      return again ? { ...again, from: p.from, via: p.via, depth: p.depth } : p;
    });
    return [...renewed, ...fresh.values()];
  }

  /** What pages load, and what their style sheets load in turn. */
  private async readFiles({ pages }: ReadPages) {
    if (!this.looks.has('pages')) return { manifest: this.before.manifest, assets: this.before.assets };
    const { own, homeUrl } = this.plan;
    const list = assetsToFetch(pages, own, homeUrl, this.options.outside);
    const home = pages.find((p) => p.via === 'home');
    const link = (home && shownFacts(home))?.links.find((l) => l.rel.includes('manifest'));
    const manifest = await fetchManifest(this.files, link?.href);
    for (const icon of manifest?.facts?.icons ?? []) list.add(icon.src, 'manifest-icon');
    const fetch = this.assetFetcher(list);
    const first = await fetch([...list.wanted.keys()]);
    const styles = first.filter((a) => a.css);
    const second = await fetch(addFromStyles(list, styles, own));
    return { manifest, assets: [...first, ...second] };
  }

  private assetFetcher(list: AssetList): (urls: readonly string[]) => Promise<Evidence['assets']> {
    const { tools, plan } = this;
    const built = new Set((this.options.build ?? []).flatMap((path) => builtAddresses(path, plan.origin)));
    let done = 0;
    const limit = limitedTo(this.options.concurrency ?? USUAL_CONCURRENCY);
    const fetchOne = async (url: string): Promise<AssetEvidence> => {
      const asset = await fetchAsset(tools.client, url, list.wanted.get(url)!, tools.readFile, {
        isBuilt: built.has(url),
      });
      this.say({ phase: 'Files', done: ++done, total: list.wanted.size, current: url });
      return asset;
    };
    return (urls) => Promise.all(urls.map((url) => limit(fetchOne, url)));
  }

  /** What is compared with the pages that were read: links, folders, other spellings, caches. */
  private async compare({ crawler, pages, unread }: ReadPages, assets: Evidence['assets']) {
    if (!this.looks.has('pages')) {
      const { links, folders, variants, freshness, hidden = [], built = [] } = this.before;
      return { links, folders, variants, freshness, hidden, built };
    }
    const { plan, files, tools } = this;
    const { client, extract } = tools;
    const { isLive, origin, own } = plan;
    const rules = {
      within: (url: string) => crawler.within(url),
      own: (h: string) => own.has(h),
      outside: plan.askOutside,
      asked: crawler.detours.map((d) => d.url),
    };
    const compared = { client, extract, ask: this.ask };
    const folders = isLive
      ? foldersOf(
          [...assets.map((a) => a.url), ...linkedFrom(pages, origin)],
          new Set(pages.map((p) => p.url)),
          origin,
        )
      : [];
    this.say({ phase: 'Links and comparisons', done: 0, total: 1 });
    const known = new Set([...pages, ...assets].map(({ url }) => url).concat(unread));
    const [links, folderProbes, variants, freshness, hidden, built] = await Promise.all([
      askLinks(client, linksToAsk(pages, unread, rules), rules.own),
      probeFolders(files, folders),
      isLive ? probeVariants(compared, pages) : [],
      isLive ? compareFreshness(compared, pages) : [],
      isLive ? readHidden(files, extract, plan.brief, pages) : [],
      isLive ? readBuilt(files, extract, this.options.build ?? [], known) : [],
    ]);
    return {
      links: [...crawler.detours, ...links],
      folders: folderProbes,
      variants,
      freshness,
      hidden,
      built,
    };
  }

  /** Some of the pages, in a browser. It does not throw. */
  private async render(pages: Evidence['pages']): Promise<Evidence['rendered']> {
    const { options, plan, tools } = this;
    if (!this.looks.has('rendered')) return this.before.rendered;
    if (!options.render) return undefined;
    const { brief, homeUrl, isLive } = plan;
    // on staging the base may have a path, and required pages lie below it
    const required = (brief.requiredPages ?? []).map((path) => (isLive ? path : path.replace(/^\//, '')));
    const urls = pagesToRender(pages, { base: homeUrl, required }, options.render.pages);
    const { evidence } = await render(urls, options.render, {
      dialer: tools.dialer,
      extract: tools.extract,
      selectors: plan.selectors,
      access: options.access,
      gate: options.gate,
      ids: brief.analyticsIds ?? [],
      consentClick: brief.consentClick,
      signal: this.halt,
      onPage: (done, total, current) => this.say({ phase: 'In a browser', done, total, current }),
    }).catch((error: unknown) => ({
      evidence: { missing: (error as Error).message.slice(0, 300), pages: [] },
    }));
    return evidence;
  }

  private notes({ crawler, sitemaps, pages, unread }: ReadPages): string[] {
    if (!this.looks.has('pages')) return this.before.notes;
    const limit = this.isOverdue()
      ? 'The time for one audit ran out before every page was read.'
      : `The page limit was reached: ${pages.length} of ${pages.length + unread.length} pages were read.`;
    const endless =
      'Some addresses count up without end, as a calendar’s do; they were not followed further.';
    const counted = sitemaps.reduce(
      (sum, m) => sum + (m.facts?.kind === 'index' ? 0 : (m.facts?.count ?? 0)),
      0,
    );
    const many = `The sitemaps name ${counted.toLocaleString('en')} addresses; ${SITEMAP_TOTAL_URLS.toLocaleString('en')} of them are kept.`;
    const { spent } = this.tools.budget;
    return [
      ...(unread.length ? [limit] : []),
      ...(crawler.endless ? [endless] : []),
      ...(counted > SITEMAP_TOTAL_URLS ? [many] : []),
      ...(spent ? [`The audit had its share of ${spent}; what came after was not asked for.`] : []),
      ...(this.halt.aborted ? ['The time for one audit was over before everything was looked at.'] : []),
    ];
  }

  /** What DNS answered: all of it, or what it answers now where it was asked again and before where it was not. */
  private answers(): Evidence['dns']['answers'] {
    const fresh = [...this.tools.dialer.answers];
    if (!this.options.again) return fresh.sort(inOrder);
    const { answers: old } = this.before.dns;
    if (!this.looks.has('dns')) return old;
    const asked = new Set(fresh.map(questionOf));
    return [...fresh, ...old.filter((a) => !asked.has(questionOf(a)))].sort(inOrder);
  }

  /** When each part was looked at, where not all was. */
  private times(now: string): Pick<Evidence, 'times'> {
    const { again } = this.options;
    if (!again?.before) return {};
    const before = timesOf(again.before);
    const times = PARTS.map((part) => [part, this.looks.has(part) ? now : before[part]]);
    return { times: Object.fromEntries(times) as Record<Part, string> };
  }

  private evidence(
    read: ReadPages,
    { manifest, assets }: Awaited<ReturnType<Collection['readFiles']>>,
    { hidden, built, ...compared }: Awaited<ReturnType<Collection['compare']>>,
    {
      asked,
      probes,
      dns,
      rendered,
      ...infrastructure
    }: Awaited<ReturnType<Collection['probeInfrastructure']>> & Pick<Evidence, 'rendered'>,
  ): Evidence {
    const { plan, options, tools } = this;
    const { robots, sitemaps, vouching, pages, unread } = read;
    const { links, folders, variants, freshness } = compared;
    const { hosts: hostEvidence, subdomains, former, bypass, registration, mtaSts } = infrastructure;
    const finishedAt = this.clock().toISOString();
    const evidence: Evidence = {
      version: EVIDENCE_VERSION,
      agent: tools.client.options.agent,
      target: targetOf(plan, options.access),
      startedAt: this.startedAt,
      finishedAt,
      dns: { ...dns, answers: this.answers() },
      hosts: hostEvidence,
      subdomains,
      robots,
      sitemaps,
      ...(vouching.length ? { vouching } : {}),
      pages,
      unread,
      assets,
      links,
      ...probes,
      ...(asked ? { asked } : {}),
      folders,
      former,
      variants,
      freshness,
      manifest,
      bypass,
      mtaSts,
      registration,
      ...(rendered ? { rendered } : {}),
      notes: this.notes(read),
      ...(hidden.length ? { hidden } : {}),
      ...(built.length ? { built } : {}),
      ...this.times(finishedAt),
    };
    return withoutSecrets(evidence, [...secretsOf(options.access), ...secretsOf(plan.pass?.access)]);
  }
}

type ReadPages = Awaited<ReturnType<Collection['readPages']>>;

/** What pages link to on this origin, each once; what has side effects is left out. */
function linkedFrom(pages: Evidence['pages'], origin: string): Set<string> {
  const anchors = pages.flatMap((p) => shownFacts(p)?.anchors ?? []);
  return new Set(
    anchors.flatMap(({ href }) => (href.startsWith(`${origin}/`) && !HAS_EFFECT.test(href) ? href : [])),
  );
}

/** By code units: the same everywhere, and quick. */
const compare = (a: string, b: string): number => (a < b ? -1 : a > b ? 1 : 0);
const orderOf = (a: DnsAnswer): string => `${a.role} ${a.name} ${a.type} ${a.server} ${a.unchecked ? 1 : 0}`;
/** Who was asked what. */
const questionOf = ({ role, server, name, type, unchecked }: DnsAnswer): string =>
  [role, server, name, type, unchecked].join(' ');
const inOrder = (a: DnsAnswer, b: DnsAnswer): number => compare(orderOf(a), orderOf(b));

/** The home page first, then by the number of links that lead there. */
function byDepth(a: Evidence['pages'][number], b: Evidence['pages'][number]): number {
  if (a.via === 'home' || b.via === 'home') return a.via === 'home' ? -1 : 1;
  return a.depth - b.depth || compare(a.requested, b.requested);
}
