/** Reads pages from the home page on, breadth first, politely, within the environment. */
import { insideBase, normaliseUrl } from '#core/extract/address';
import { readLinkHeader } from '#core/extract/link-header';
import { isShell, shownFacts } from '#core/extract/shell';
import {
  finalStatus,
  headerValues,
  lastAnswer,
  type LinkEvidence,
  type PageEvidence,
  type PageRendering,
} from '#core/facts/evidence';
import pLimit from 'p-limit';
import { sha256 } from './digest';
import type { Extract } from './extractor';
import type { Fetched, HttpClient } from './http/client';
import { PageQueue, type PageTask } from './page-queue';

export interface CrawlOptions {
  base: string;
  hosts: ReadonlySet<string>;
  maxPages: number;
  concurrency: number;
  extract: Extract;
  /** Renders an empty shell, where there is a browser. */
  render?: (url: string) => Promise<PageRendering>;
  deadline: () => boolean;
  onPage: (done: number, known: number, url: string) => void;
  signal?: AbortSignal;
  /** Read what was added and nothing that it leads to. */
  stay?: boolean;
}

interface Visit {
  task: PageTask;
  page: PageEvidence;
}

/** Addresses that lead to a file and not to a page, by their ending. */
const NOT_A_PAGE =
  /\.(?:png|jpe?g|gif|webp|avif|svg|ico|css|m?js|json|xml|txt|pdf|zip|gz|tar|rar|7z|docx?|xlsx?|pptx?|odt|mp[34]|webm|ogg|mov|avi|wav|woff2?|ttf|eot|ics|vcf)$/i;
/** Addresses with a side effect: signing out, filling a cart. */
export const HAS_EFFECT =
  /(?:^|[/?&=_-])(?:log-?out|sign-?out|add[-_]to[-_]cart|remove[-_]item|delete|unsubscribe)(?:$|[/?&=_-])/i;
const QUERIES_PER_PATH = 10;
const MAX_DEPTH = 12;
/** Pages that are chosen together, as a multiple of the requests at once. */
const BATCH = 4;
const DETOURS = 2000;

/** Endless addresses: a path segment that comes three times, or a very long path. */
function looksEndless(url: URL): boolean {
  const segments = url.pathname.split('/').filter(Boolean);
  return (
    segments.length > 15 ||
    url.href.length > 2000 ||
    segments.some((s) => segments.filter((x) => x === s).length > 2)
  );
}

/** Paths that count up: a year, month, day or number in place of another one, as calendars do without end. */
const NUMBERED = /\d+/g;
const NUMBERS_PER_PATTERN = 400;

export class Crawler {
  readonly pages: PageEvidence[] = [];
  /** Addresses that led to a page already read. */
  readonly detours: LinkEvidence[] = [];
  private readonly queue = new PageQueue();
  /** What was found and not read. */
  unread: string[] = [];
  private readonly known = new Set<string>();
  private readonly read = new Set<string>();
  private readonly queries = new Map<string, number>();
  private readonly patterns = new Map<string, number>();
  private readonly baseHost: string;
  /** Whether a run of addresses was cut because it seems to have no end. */
  endless = false;

  constructor(
    private readonly client: HttpClient,
    private readonly options: CrawlOptions,
  ) {
    this.baseHost = new URL(options.base).hostname;
  }

  /** Whether an address is one of this environment. */
  within(address: string): boolean {
    const url = new URL(address);
    if (!this.options.hosts.has(url.hostname)) return false;
    return url.hostname !== this.baseHost || insideBase(address, this.options.base);
  }

  /** Queues an address unless it is known, outside, no page, or a trap. */
  add(address: string, via: PageTask['via'], from: string | null = null, depth = 0): void {
    const normal = normaliseUrl(address, this.options.base);
    if (!normal || this.known.has(normal)) return;
    if (via !== 'home') {
      if (!this.within(normal) || depth > MAX_DEPTH) return;
      const url = new URL(normal);
      if (NOT_A_PAGE.test(url.pathname) || HAS_EFFECT.test(url.pathname + url.search)) return;
      if (via === 'link' && (looksEndless(url) || this.countsUp(url))) {
        this.endless = true;
        return;
      }
    }
    // a link to it may still come
    if (via !== 'named') this.known.add(normal);
    this.queue.add({ url: normal, from, via, depth });
  }

  /** Calendar-like addresses: too many queries of one path, or too many numbers in one place. */
  private countsUp(url: URL): boolean {
    if (url.search) {
      const path = url.origin + url.pathname;
      const count = (this.queries.get(path) ?? 0) + 1;
      this.queries.set(path, count);
      if (count > QUERIES_PER_PATH) return true;
    }
    if (!/\d/.test(url.pathname)) return false;
    const pattern = url.origin + url.pathname.replace(NUMBERED, '0');
    const count = (this.patterns.get(pattern) ?? 0) + 1;
    this.patterns.set(pattern, count);
    // two numbers or more in one path count up together; one alone may well number real pages
    return url.pathname.match(NUMBERED)!.length > 1 && count > NUMBERS_PER_PATTERN;
  }

  /**
   * Reads until nothing is left or a limit is reached. Pages are chosen in batches, and answers taken in the order of
   * asking, so that the same site gives the same pages.
   */
  async run(): Promise<void> {
    const { options } = this;
    const limit = pLimit(options.concurrency);
    for (let batch = this.batch(); batch.length; batch = this.batch()) {
      const visits = batch.map((task) => limit(() => (this.isOver ? undefined : this.visit(task))));
      // one that fails is awaited in its turn
      for (const visit of visits) visit.catch(() => {});
      for (const [i, visit] of visits.entries()) {
        const found = await visit;
        if (found) this.take(found);
        else this.unread.push(batch[i]!.url);
      }
    }
    const rest = [...this.unread, ...this.queue.drain().map((t) => t.url)];
    this.unread = [...new Set(rest)].filter((url) => !this.read.has(url));
  }

  private get isOver(): boolean {
    return this.options.deadline() || this.options.signal?.aborted === true;
  }

  /** Those to be read next. */
  private batch(): PageTask[] {
    const { maxPages, concurrency } = this.options;
    const most = Math.min(BATCH * concurrency, maxPages - this.pages.length);
    const batch: PageTask[] = [];
    while (batch.length < most && this.queue.size && !this.isOver) {
      // what the home page links to decides what is read next
      if (batch[0]?.via === 'home' && !this.queue.hasFirst) break;
      const task = this.queue.next()!;
      if (!this.read.has(task.url) && !batch.some((t) => t.url === task.url)) batch.push(task);
    }
    return batch;
  }

  private async visit(task: PageTask): Promise<Visit> {
    const { options } = this;
    const fetched = await this.client.followTwice(task.url, { own: (h) => options.hosts.has(h) });
    const page = await readPage(task, fetched, options.extract);
    if (options.render && page.facts && isShell(page.facts) && finalStatus(page.chain) === 200)
      page.rendered = await options.render(page.url);
    return { task, page };
  }

  /** Queues what a page leads to. */
  private follow(task: PageTask, page: PageEvidence): void {
    const facts = shownFacts(page);
    const depth = task.depth + 1;
    if (facts && this.options.hosts.has(new URL(page.url).hostname)) {
      this.queue.saw(task, facts);
      for (const a of facts.anchors)
        if (!a.rel?.includes('nofollow')) this.add(a.href, 'link', page.url, depth);
      if (page.rendered?.leadsTo) this.add(page.rendered.leadsTo, 'link', page.url, depth);
      if (task.via === 'home')
        this.queue.prefer(new Set(facts.anchors.map((a) => normaliseUrl(a.href) ?? a.href)));
    }
    for (const address of namedBy(page)) this.add(address, 'named', page.url, depth);
  }

  private take({ task, page }: Visit): void {
    const { options } = this;
    // an address that led to a page already read is not a second page
    if (this.read.has(page.url) && finalStatus(page.chain) === 200) {
      this.read.add(task.url);
      if (task.url !== page.url && this.detours.length < DETOURS)
        this.detours.push({ url: task.url, own: true, chain: page.chain });
      return;
    }
    this.read.add(task.url);
    this.read.add(page.url);
    this.known.add(page.url);
    this.pages.push(page);
    if (!options.stay) this.follow(task, page);
    options.onPage(
      this.pages.length,
      Math.min(options.maxPages, this.pages.length + this.queue.size),
      page.url,
    );
  }
}

/** Addresses that a page names as its canonical, or as itself in another language. */
function namedBy({ facts, rendered, chain, url }: PageEvidence): string[] {
  const links = (shownFacts({ facts, rendered })?.links ?? [])
    .filter((l) => l.rel.includes('canonical') || (l.rel.includes('alternate') && l.hreflang))
    .map((l) => l.href);
  const headers = headerValues(lastAnswer(chain), 'link').flatMap((value) =>
    readLinkHeader(value)
      .filter(({ rel }) => rel.includes('canonical'))
      .map(({ href }) => normaliseUrl(href, url) ?? href),
  );
  return [...links, ...headers].slice(0, NAMED_PER_PAGE);
}
const NAMED_PER_PAGE = 50;

/** Bytes to evidence of a page. */
export async function readPage(
  task: PageTask,
  { chain, body, firstTry }: Fetched & { firstTry?: PageEvidence['firstTry'] },
  extract: Extract,
): Promise<PageEvidence> {
  const last = lastAnswer(chain);
  const url = normaliseUrl(last?.url ?? task.url) ?? task.url;
  const contentType = headerValues(last, 'content-type')[0];
  const page: PageEvidence = {
    url,
    requested: task.url,
    from: task.from,
    via: task.via,
    depth: task.depth,
    chain,
    ...(firstTry ? { firstTry } : {}),
    ...(contentType ? { contentType: contentType.slice(0, 200) } : {}),
  };
  if (!body) return page;
  page.sha256 = await sha256(body);
  if (!isHtml(contentType, body)) return page;
  try {
    Object.assign(page, await extract(body, contentType, url));
  } catch (error) {
    page.chain = {
      ...chain,
      end: 'error',
      error: {
        code: 'too-large',
        message: `the page cannot be read: ${(error as Error).message}`.slice(0, 200),
      },
    };
  }
  return page;
}

/** Whether an answer is HTML: by its type, or by its first bytes when no type was sent. */
export function isHtml(contentType: string | undefined, body: Buffer): boolean {
  if (contentType) return /^\s*(text\/html|application\/xhtml\+xml)\b/i.test(contentType);
  return /^\s*(<!doctype html|<html|<head|<body)/i.test(body.subarray(0, 200).toString('latin1'));
}
