/** Looking at pages as visitors see them: in a browser, on both screens. Never judges. */
import { createHash } from 'node:crypto';
import pLimit from 'p-limit';
import { normaliseUrl, parseUrl } from '#core/extract/address';
import { isShell } from '#core/extract/shell';
import type { PageRendering } from '#core/facts/evidence';
import { measuringHit } from '#core/extract/measuring';
import {
  blankView,
  SCREENS,
  type KeptPicture,
  type MeasuringHit,
  type RenderedEvidence,
  type RenderedPage,
  type RenderedView,
  type Screen,
  type SeenCookie,
  type SeenStorage,
} from '#core/facts/rendered';
import type { BrowserContext, CDPSession, Frame, Page, Request } from 'playwright-core';
import type { Dialer } from '../dialer';
import type { Extract } from '../extractor';
import type { Access } from '../http/access';
import { OPEN_GATE, type HostGate } from '../http/host-gate';
import { GuardedBrowser, isThere, startPatiently, type BrowserSettings } from './browser';
import { measure, storedKeys, untilStill, walkDown, wholeDocument } from './in-page';
import { RenderProxy } from './proxy';
import { guardRequests, LONGEST_BODY } from './request-guard';

export interface RenderOptions {
  browser: BrowserSettings;
  /** How many pages beside the home page and the required ones. */
  pages: number;
  /** Told of each picture once; without it none is taken. */
  keepPicture?: (sha256: string, bytes: Buffer) => void;
  /** For all pages together. */
  seconds?: number;
  limits?: Partial<RenderLimits>;
}

/** How long is waited, in milliseconds. */
interface RenderLimits {
  /** For a window to look at a page in. */
  windowMs: number;
  /** For the first bytes of a page, and until it says that it is loaded. */
  answerMs: number;
  loadMs: number;
  /** Until nothing is on its way any more. */
  settleMs: number;
  /** For what a page is asked. */
  askMs: number;
  /** For one page on one screen, whatever it does. */
  viewMs: number;
}

/** What rendering takes over from the audit that it is a part of. */
export interface RenderTools {
  dialer: Dialer;
  extract: Extract;
  selectors: readonly string[];
  access?: Access;
  gate?: HostGate;
  /** Analytics IDs whose hits are known by them. */
  ids: readonly string[];
  /** A selector or the text of what a visitor clicks to consent. */
  consentClick?: string;
  signal?: AbortSignal;
  onPage?: (done: number, total: number, url: string) => void;
}

const USUAL_SECONDS = 150;
const LIMITS: RenderLimits = {
  windowMs: 6000,
  answerMs: 20_000,
  loadMs: 12_000,
  settleMs: 8000,
  askMs: 6000,
  viewMs: 60_000,
};
/** At rest: nothing on its way for so long. */
const QUIET_MS = 400;
/** A script may never read what it fetched; then the browser never calls it loaded. */
const UNREAD_MS = 1500;
const LOOK_MS = 40;
/** For what loads only when it comes into sight. */
const SIGHT_MS = 2000;
const CLOSE_MS = 3000;
const MOST_RESTARTS = 2;
const MOST_HTML = 3 * 1024 * 1024;
const MOST_LISTED = 40;
const LONGEST = 400;
/** The longest picture, in CSS pixels. */
const MOST_HEIGHT = 5000;
const QUALITY = 70;
const PHONE_SCALE = 2;

const cut = (text: string): string => text.slice(0, LONGEST);
const hostIn = (url: string): string => parseUrl(url)?.hostname ?? '';

/** @throws Error with `why` when it takes longer */
async function within<T>(ms: number, why: string, work: Promise<T>): Promise<T> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error(why)), ms);
  });
  try {
    return await Promise.race([work, late]);
  } finally {
    clearTimeout(timer);
    work.catch(() => {});
  }
}

/** Runs a function in a page: as text, with the mark that some builds put around names. */
function ask<A, R>(at: Page | Frame, work: (given: A) => R | Promise<R>, given: A, ms: number): Promise<R> {
  const text = `(() => { const __name = (it) => it; return (${work.toString()})(${JSON.stringify(given) ?? ''}); })()`;
  return within(ms, 'its scripts never rest: it gave no answer', at.evaluate<R>(text));
}

/** As ordinary visitors' browsers say it, with ours at the end. */
function agentOf(screen: Screen, version: string): string {
  const [major = '0'] = version.split('.');
  const system = screen === 'phone' ? 'Linux; Android 10; K' : 'X11; Linux x86_64';
  const mobile = screen === 'phone' ? ' Mobile' : '';
  return `Mozilla/5.0 (${system}) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/${major}.0.0.0${mobile} Safari/537.36 Armband/0.1`;
}

/** What a page asks for and says while it is looked at. */
class Traffic {
  /** With the moment when the answer began, where it has. */
  private readonly open = new Map<Request, number | undefined>();
  private readonly done: Request[] = [];
  readonly hits: MeasuringHit[] = [];
  readonly errors: RenderedView['errors'] = [];
  readonly complaints: string[] = [];
  readonly failed: RenderedView['failed'] = [];
  readonly hosts = new Map<string, number>();
  lastMs = performance.now();
  afterConsent = false;

  constructor(
    private readonly tools: RenderTools,
    private readonly proxy: RenderProxy,
    page: Page,
  ) {
    page.on('request', (r) => this.began(r));
    page.on('requestfinished', (r) => this.finished(r));
    page.on('requestfailed', (r) => this.broke(r));
    page.on('response', (r) => {
      const request = r.request();
      if (this.open.has(request)) this.open.set(request, performance.now());
      if (r.status() >= 400 && !request.isNavigationRequest())
        this.note({ url: cut(r.url()), type: request.resourceType(), status: r.status() });
    });
    page.on('pageerror', (error) => {
      if (this.errors.length >= MOST_LISTED) return;
      const at = /(https?:\/\/\S+?:\d+):\d+\)?$/m.exec(error.stack ?? '')?.[1];
      this.errors.push({
        message: cut(error.message || String(error)),
        ...(at ? { at: cut(at) } : {}),
      });
    });
    page.on('console', (message) => {
      // what the browser itself writes of requests stands among those
      if (message.type() !== 'error' || /^Failed to load resource/.test(message.text())) return;
      if (this.complaints.length < MOST_LISTED) this.complaints.push(cut(message.text()));
    });
  }

  private note(fault: RenderedView['failed'][number]): void {
    if (this.failed.length < MOST_LISTED) this.failed.push(fault);
  }

  private began(request: Request): void {
    this.open.set(request, undefined);
    this.lastMs = performance.now();
    const host = hostIn(request.url());
    if (host) this.hosts.set(host, (this.hosts.get(host) ?? 0) + 1);
    // it is stopped by the guard of all requests
    const hit = measuringHit(
      { url: request.url(), type: request.resourceType(), body: request.postData()?.slice(0, LONGEST_BODY) },
      this.tools.ids,
    );
    if (hit && this.hits.length < MOST_LISTED)
      this.hits.push({ ...hit, ...(this.afterConsent ? { afterConsent: true as const } : {}) });
  }

  private finished(request: Request): void {
    this.open.delete(request);
    this.done.push(request);
    this.lastMs = performance.now();
  }

  private broke(request: Request): void {
    this.open.delete(request);
    this.lastMs = performance.now();
    const text = request.failure()?.errorText ?? '';
    // given up by the page itself, or by us
    if (/ERR_ABORTED|ERR_BLOCKED_BY_CLIENT/.test(text) || request.isNavigationRequest()) return;
    const url = request.url();
    const why = /ERR_TUNNEL|ERR_PROXY|ERR_EMPTY_RESPONSE/.test(text)
      ? this.proxy.refusals.get(hostIn(url))
      : undefined;
    this.note({ url: cut(url), type: request.resourceType(), error: cut(why ?? text) });
  }

  /** Whether nothing is on its way, and has not been for a while. */
  get isQuiet(): boolean {
    const now = performance.now();
    const isUnread = ([request, answeredMs]: [Request, number | undefined]): boolean =>
      request.resourceType() === 'fetch' && answeredMs !== undefined && now - answeredMs >= UNREAD_MS;
    return now - this.lastMs >= QUIET_MS && [...this.open].every(isUnread);
  }

  /** Waits until nothing is on its way, or so long. */
  async quiet(mostMs: number): Promise<void> {
    const until = performance.now() + mostMs;
    while (!this.isQuiet && performance.now() < until) await new Promise((r) => setTimeout(r, LOOK_MS));
  }

  /** What was loaded, by type. */
  async loads(): Promise<RenderedView['loads']> {
    const sums = new Map<string, { type: string; requests: number; bytes: number }>();
    await Promise.all(
      this.done.slice(0, 2000).map(async (request) => {
        const sizes = await within(1000, 'late', request.sizes()).catch(() => undefined);
        const type = request.resourceType();
        const sum = sums.get(type) ?? { type, requests: 0, bytes: 0 };
        sums.set(type, sum);
        sum.requests++;
        sum.bytes += (sizes?.responseBodySize ?? 0) + (sizes?.responseHeadersSize ?? 0);
      }),
    );
    return [...sums.values()].sort((a, b) => b.bytes - a.bytes);
  }
}

/** One page on one screen. */
class Look {
  readonly view: RenderedView;
  private readonly began = performance.now();
  private readonly limits: RenderLimits;

  constructor(
    private readonly url: string,
    private readonly screen: Screen,
    private readonly options: RenderOptions,
    private readonly tools: RenderTools,
  ) {
    this.limits = { ...LIMITS, ...options.limits };
    this.view = blankView(url, screen);
  }

  /** What the page says and links to, and nothing else. */
  async facts(page: Page, traffic: Traffic): Promise<void> {
    await this.open(page);
    await this.rest(traffic);
    await this.read(page);
  }

  /** Everything that is looked at, in its order; what was found by then stays where it breaks off. */
  async at(page: Page, context: BrowserContext, traffic: Traffic): Promise<void> {
    const { view } = this;
    let crashed = false;
    page.on('crash', () => (crashed = true));
    try {
      await this.open(page);
      await this.rest(traffic);
      await ask(page, untilStill, 2500, this.limits.askMs).catch(() => {});
      view.settledMs = Math.round(Math.max(0, traffic.lastMs - this.began));
      await this.read(page);
      await this.lies(page);
      view.cookies = await this.cookies(context);
      view.storage = await this.storage(page);
      await this.pictures(page, traffic);
      if (this.screen === 'desktop' && this.tools.consentClick) await this.consent(page, context, traffic);
    } catch (error) {
      view.failure = crashed ? 'the page crashed the browser’s tab' : cut((error as Error).message);
    }
    view.errors = traffic.errors;
    view.complaints = traffic.complaints;
    view.failed = traffic.failed;
    view.hits = traffic.hits;
    const own = hostIn(view.url);
    view.hosts = [...traffic.hosts]
      .filter(([host]) => host !== own)
      .map(([host, requests]) => ({ host, requests }))
      .sort((a, b) => b.requests - a.requests)
      .slice(0, MOST_LISTED * 2);
    view.loads = await traffic.loads();
  }

  private async open(page: Page): Promise<void> {
    const { view } = this;
    let answer;
    try {
      answer = await page.goto(this.url, { waitUntil: 'commit', timeout: this.limits.answerMs });
    } catch (error) {
      const code = /net::(ERR_\w+)/.exec((error as Error).message)?.[1];
      throw new Error(code ? `the browser could not open it (${code})` : 'the browser got no answer in time');
    }
    view.status = answer?.status();
    await page.waitForLoadState('load', { timeout: this.limits.loadMs }).catch(() => {});
    view.url = page.url();
  }

  private async rest(traffic: Traffic): Promise<void> {
    await traffic.quiet(this.limits.settleMs);
    if (!traffic.isQuiet) this.view.restless = true;
  }

  private async read(page: Page): Promise<void> {
    const html = await ask(page, wholeDocument, null, this.limits.askMs);
    const kept = Buffer.from(`<!doctype html>${html.slice(0, MOST_HTML)}`);
    this.view.url = page.url();
    const { extract, selectors } = this.tools;
    const { facts } = await extract(kept, 'text/html; charset=utf-8', this.view.url, selectors);
    this.view.facts = facts;
  }

  private async lies(page: Page): Promise<void> {
    const found = await ask(page, measure, SCREENS[this.screen].width, this.limits.askMs);
    const { view } = this;
    view.layout = {
      width: Number(found.width) || 0,
      sideways: Number(found.sideways) || 0,
      wide: found.wide
        .slice(0, 5)
        .map((w) => ({ element: cut(String(w.element)), right: Number(w.right) || 0 })),
      small: found.small.slice(0, 12).map((s) => ({
        px: Number(s.px) || 0,
        letters: Number(s.letters) || 0,
        element: cut(String(s.element)),
        text: cut(String(s.text)),
      })),
    };
    view.layoutShift = Math.round((Number(found.layoutShift) || 0) * 10_000) / 10_000;
    if (found.firstPaintMs !== null) view.firstPaintMs = Math.round(Number(found.firstPaintMs) || 0);
    this.height = Number(found.height) || 0;
  }
  private height = 0;

  private async cookies(context: BrowserContext): Promise<SeenCookie[]> {
    const all = await within(this.limits.askMs, 'its cookies could not be read', context.cookies());
    return all.slice(0, MOST_LISTED * 2).map((c) => ({
      name: cut(c.name),
      domain: cut(c.domain),
      secure: c.secure,
      httpOnly: c.httpOnly,
      sameSite: c.sameSite,
      session: c.expires < 0,
    }));
  }

  private async storage(page: Page): Promise<SeenStorage[]> {
    const out: SeenStorage[] = [];
    for (const frame of page.frames().slice(0, 10)) {
      const found = await ask(frame, storedKeys, null, this.limits.askMs).catch(() => undefined);
      if (!found) continue;
      for (const kind of ['local', 'session'] as const) {
        const keys = found[kind].slice(0, 50).map((k) => cut(String(k)));
        if (keys.length) out.push({ origin: cut(String(found.origin)), kind, keys });
      }
    }
    return out;
  }

  private async pictures(page: Page, traffic: Traffic): Promise<void> {
    if (!this.options.keepPicture) return;
    const { view } = this;
    const { width, height } = SCREENS[this.screen];
    const session = await page.context().newCDPSession(page);
    view.first = await this.picture(session, { width, height });
    await this.wholePicture(page, session, traffic);
    const again = await this.picture(session, { width, height });
    if (again.sha256 !== view.first.sha256) view.again = again;
  }

  private async wholePicture(page: Page, session: CDPSession, traffic: Traffic): Promise<void> {
    const { view } = this;
    const { width, height } = SCREENS[this.screen];
    if (this.height <= height) return;
    // what loads only when it comes into sight
    await ask(page, walkDown, MOST_HEIGHT, this.limits.askMs).catch(() => {});
    await traffic.quiet(SIGHT_MS);
    const whole = Math.min(this.height, MOST_HEIGHT);
    view.whole = await this.picture(session, { width, height: whole });
    if (whole < this.height) view.cut = true;
  }

  private async picture(
    session: CDPSession,
    { width, height }: { width: number; height: number },
  ): Promise<KeptPicture> {
    // the clip is in CSS pixels, and its scale makes it the screen’s own
    const scale = this.screen === 'phone' ? PHONE_SCALE : 1;
    const { data } = await within(
      this.limits.askMs * 2,
      'no picture could be taken of it',
      session.send('Page.captureScreenshot', {
        format: 'webp',
        quality: QUALITY,
        captureBeyondViewport: true,
        clip: { x: 0, y: 0, width, height, scale },
      }),
    );
    const bytes = Buffer.from(data, 'base64');
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    this.options.keepPicture?.(sha256, bytes);
    return { sha256, width: width * scale, height: height * scale, bytes: bytes.length };
  }

  private async consent(page: Page, context: BrowserContext, traffic: Traffic): Promise<void> {
    const { view } = this;
    // what is sent while the click is still on its way follows from it
    traffic.afterConsent = true;
    const clicked = await clickConsent(page, this.tools.consentClick!);
    traffic.afterConsent = clicked;
    view.consent = clicked ? 'clicked' : 'not found';
    if (!clicked) return;
    view.beforeConsent = { cookies: view.cookies, storage: view.storage };
    traffic.lastMs = performance.now();
    await this.rest(traffic);
    view.cookies = await this.cookies(context);
    view.storage = await this.storage(page);
  }
}

/** Whether it reads as a selector rather than as words on a button. */
const isSelector = (text: string): boolean => /^[#.[]|[>[\]=]/.test(text.trim());

/** Clicks what a visitor would to consent, wherever it stands. @returns whether there was such a thing */
async function clickConsent(page: Page, wanted: string): Promise<boolean> {
  for (const frame of page.frames().slice(0, 10)) {
    const found = isSelector(wanted)
      ? [frame.locator(wanted)]
      : [
          frame.getByRole('button', { name: wanted, exact: true }),
          frame.getByRole('link', { name: wanted, exact: true }),
          frame.getByText(wanted, { exact: true }),
        ];
    for (const locator of found) {
      const there = await within(2000, 'late', locator.count()).catch(() => 0);
      if (!there) continue;
      const done = await locator
        .first()
        .click({ timeout: 3000 })
        .then(
          () => true,
          () => false,
        );
      if (done) return true;
    }
  }
  return false;
}

const NO_WINDOW = 'the browser gave no window';
/** A machine that is too busy, not a fault of the page. */
class NoWindow extends Error {}
const noWindow = (error: Error): never => {
  throw new NoWindow(error.message);
};

type Work = (look: Look, page: Page, context: BrowserContext, traffic: Traffic) => Promise<void>;
const LOOK_AT_ALL: Work = (look, page, context, traffic) => look.at(page, context, traffic);
const READ_FACTS: Work = (look, page, _, traffic) => look.facts(page, traffic);

/** Looks at pages one after the other, each on both screens at once. */
class Rendering {
  private browser?: GuardedBrowser;
  private restarts = 0;
  private readonly until: number;
  private readonly limits: RenderLimits;
  peakBytes = 0;
  version?: string;

  constructor(
    private readonly options: RenderOptions,
    private readonly tools: RenderTools,
    private readonly proxy: RenderProxy,
  ) {
    this.limits = { ...LIMITS, ...options.limits };
    this.until = performance.now() + (options.seconds ?? USUAL_SECONDS) * 1000;
  }

  /** @throws Error where it does not start */
  async start(): Promise<GuardedBrowser> {
    const { browser: settings } = this.options;
    const started = await startPatiently(() => GuardedBrowser.start(settings, this.proxy.address));
    this.browser = started;
    try {
      await guardRequests(started.browser, this.tools);
    } catch (error) {
      // without its guard it is not used
      started.kill('its requests could not be guarded');
      throw error;
    }
    this.version = started.browser.version();
    return started;
  }

  /** Why nothing more is looked at. */
  private get over(): string | undefined {
    if (this.tools.signal?.aborted) return 'the audit was stopped';
    if (performance.now() > this.until) return 'the time for looking in a browser was over';
    return this.proxy.spent;
  }

  /** The browser, started again where a page has ended it. */
  private async ready(): Promise<GuardedBrowser | string> {
    const { browser } = this;
    if (browser && !browser.ended) return browser;
    const why = browser?.ended ?? 'there is no browser';
    await this.close();
    if (this.restarts++ >= MOST_RESTARTS) return why;
    return this.start().catch((error: unknown) => cut((error as Error).message));
  }

  /** Waits until its host may be asked. @returns what says that it was */
  private enter(url: string): Promise<() => void> {
    return (this.tools.gate ?? OPEN_GATE).enter(hostIn(url), this.tools.signal).catch(() => () => {});
  }

  async page(url: string): Promise<RenderedPage> {
    const views: RenderedView[] = [];
    const leave = await this.enter(url);
    try {
      const browser = await this.ready();
      const screens = Object.keys(SCREENS) as Screen[];
      views.push(...(await Promise.all(screens.map((screen) => this.view(url, screen, browser)))));
    } finally {
      leave();
    }
    return { url, views };
  }

  /** What scripts make of a page, on one screen. */
  async facts(url: string): Promise<RenderedView> {
    const leave = await this.enter(url);
    try {
      const browser = await (this.starting ??= this.ready().finally(() => (this.starting = undefined)));
      return await this.view(url, 'desktop', browser, READ_FACTS);
    } finally {
      leave();
    }
  }
  private starting?: Promise<GuardedBrowser | string>;

  /** What is looked at next is looked at in a browser that was started anew. */
  renew(why: string): void {
    this.browser?.kill(why);
  }

  private async view(
    url: string,
    screen: Screen,
    browser: GuardedBrowser | string,
    work: Work = LOOK_AT_ALL,
  ): Promise<RenderedView> {
    const look = new Look(url, screen, this.options, this.tools);
    const { view } = look;
    view.failure = this.over ?? (typeof browser === 'string' ? browser : undefined);
    if (view.failure !== undefined || typeof browser === 'string') return view;
    delete view.failure;
    let context: BrowserContext | undefined;
    try {
      context = await this.window(browser, screen);
      const page = await within(this.limits.windowMs, NO_WINDOW, context.newPage()).catch(noWindow);
      page.on('dialog', (dialog) => void dialog.dismiss().catch(() => {}));
      page.on('popup', (popup) => void popup.close().catch(() => {}));
      const traffic = new Traffic(this.tools, this.proxy, page);
      await within(this.limits.viewMs, 'it took too long', work(look, page, context, traffic));
    } catch (error) {
      view.failure = cut((error as Error).message);
      if (error instanceof NoWindow) view.noWindow = true;
    }
    // what was cut off for the audit’s sake is no fault of the page
    const cutOff = browser.ended ?? this.proxy.spent;
    if (cutOff !== undefined) view.failure = cutOff;
    const isClosed = await within(CLOSE_MS, 'late', context?.close() ?? Promise.resolve()).then(
      () => true,
      () => false,
    );
    if (!isClosed) browser.kill('a page would not close');
    return view;
  }

  /** @throws NoWindow */
  private async window(browser: GuardedBrowser, screen: Screen): Promise<BrowserContext> {
    const phone = screen === 'phone';
    const asked = browser.browser.newContext({
      viewport: SCREENS[screen],
      screen: SCREENS[screen],
      deviceScaleFactor: phone ? PHONE_SCALE : 1,
      isMobile: phone,
      hasTouch: phone,
      userAgent: agentOf(screen, browser.browser.version()),
      locale: 'en',
      acceptDownloads: false,
      serviceWorkers: 'block',
    });
    const context = await within(this.limits.windowMs, NO_WINDOW, asked).catch(noWindow);
    // the browser's own guard against windows asks about each, which takes time
    await context.addInitScript('window.open = () => null;');
    return context;
  }

  async close(): Promise<void> {
    this.peakBytes = Math.max(this.peakBytes, this.browser?.peakBytes ?? 0);
    await this.browser?.close();
  }

  stop(): void {
    this.browser?.kill('the audit was stopped');
  }
}

export interface Rendered {
  evidence: RenderedEvidence;
  /** The most memory that the browser took. */
  peakBytes: number;
}

/** Why a browser does not start; nothing where it does. */
const whyNotStarted = (rendering: Rendering): Promise<string | undefined> =>
  rendering.start().then(
    () => undefined,
    (error: unknown) => {
      // without the name of the call that the driver puts before it
      const why = (error as Error).message.split('\n', 1)[0]!.replace(/^\w+\.\w+: /, '');
      return cut(`the browser does not start here: ${why}`);
    },
  );

const READING_SECONDS = 120;
const READING_LIMITS: Partial<RenderLimits> = {
  answerMs: 10_000,
  loadMs: 6000,
  settleMs: 3000,
  viewMs: 15_000,
};
/** Pages that are rendered at once. */
const RENDERED_AT_ONCE = 2;

/**
 * Renders pages that scripts build, for their text and links alone: on one screen, without pictures or a consent click. The
 * browser starts with the first of them.
 */
export class PageRenderer {
  private readonly limit = pLimit(RENDERED_AT_ONCE);
  private started?: Promise<{ rendering: Rendering; proxy: RenderProxy; failure?: string }>;
  private readonly stop = (): void => void this.started?.then(({ rendering }) => rendering.stop());

  constructor(
    private readonly options: RenderOptions,
    private readonly tools: Omit<RenderTools, 'consentClick' | 'onPage'>,
  ) {}

  /** It does not throw. */
  render(url: string): Promise<PageRendering> {
    return this.limit(() =>
      this.read(url).catch((error: unknown) => ({ failure: cut((error as Error).message) })),
    );
  }

  private async read(url: string): Promise<PageRendering> {
    this.started ??= this.start();
    const { rendering, failure } = await this.started;
    if (failure !== undefined) return { failure };
    const view = await rendering.facts(url);
    if (view.failure !== undefined || !view.facts) return { failure: view.failure ?? 'it gave no answer' };
    const end = normaliseUrl(view.url) ?? view.url;
    if (end !== url) return { failure: cut(`its scripts lead on to ${end}`), leadsTo: end };
    return isShell(view.facts) ? { failure: 'its scripts built nothing' } : { facts: view.facts };
  }

  private async start(): Promise<{ rendering: Rendering; proxy: RenderProxy; failure?: string }> {
    const { options, tools } = this;
    const proxy = await RenderProxy.start(tools.dialer);
    const limits = { ...READING_LIMITS, ...options.limits };
    const rendering = new Rendering({ ...options, limits, seconds: READING_SECONDS }, tools, proxy);
    tools.signal?.addEventListener('abort', this.stop, { once: true });
    const failure = isThere(options.browser) ? await whyNotStarted(rendering) : 'no browser here';
    return { rendering, proxy, ...(failure === undefined ? {} : { failure }) };
  }

  async close(): Promise<void> {
    const started = await this.started?.catch(() => undefined);
    this.tools.signal?.removeEventListener('abort', this.stop);
    await started?.rendering.close();
    await started?.proxy.close();
  }
}

/** Looks at pages in a browser; what goes wrong is told in the evidence. */
export async function render(
  urls: readonly string[],
  options: RenderOptions,
  tools: RenderTools,
): Promise<Rendered> {
  if (!isThere(options.browser)) return { evidence: { missing: 'no browser here', pages: [] }, peakBytes: 0 };
  const proxy = await RenderProxy.start(tools.dialer);
  const rendering = new Rendering(options, tools, proxy);
  const stop = (): void => rendering.stop();
  tools.signal?.addEventListener('abort', stop, { once: true });
  try {
    const pages: RenderedPage[] = [];
    const failed = await whyNotStarted(rendering);
    if (failed !== undefined) return { evidence: { missing: failed, pages }, peakBytes: 0 };
    for (const url of urls) {
      tools.onPage?.(pages.length, urls.length, url);
      pages.push(await rendering.page(url));
    }
    const late = pages.filter((p) => p.views.some((v) => v.noWindow));
    if (late.length) rendering.renew('it gave no window');
    for (const page of late) Object.assign(page, await rendering.page(page.url));
    await rendering.close();
    return {
      evidence: { browser: `Chromium ${rendering.version ?? ''}`.trim(), pages },
      peakBytes: rendering.peakBytes,
    };
  } finally {
    tools.signal?.removeEventListener('abort', stop);
    await rendering.close();
    await proxy.close();
  }
}
