/** HTTP with everything recorded: one exchange at a time, and the redirects that follow. */
import { parseUrl } from '#core/extract/address';
import type { Chain, Exchange, Header, NetworkErrorCode } from '#core/facts/evidence';
import { finalStatus, headerValues, lastAnswer } from '#core/facts/evidence';
import type { Dialer } from '../dialer';
import { ProbeError, describe } from '../network-error';
import type { TrustStore } from '../tls';
import { readBody } from './body';
import { Budget } from './budget';
import { OPEN_GATE, type HostGate } from './host-gate';
import { Origins, sleep, type Origin, type WireAnswer } from './origins';
import { openDoor, type Access } from './access';

export interface HttpOptions {
  agent: string;
  timeoutMs: number;
  maxBytes: number;
  maxRedirects: number;
  /** Requests at once to one origin. */
  connections: number;
  /** Least time between the starts of two requests to one origin, in milliseconds. */
  delayMs?: number;
  retryPauseMs: number;
  /** Whoever else asks the same hosts. */
  gate?: HostGate;
  /** The largest body that any one request may allow for itself. */
  longestBody?: number;
  signal?: AbortSignal;
  /** How the audit gets past a door: never recorded. */
  access?: Access;
  /** What all clients of one audit share. */
  budget?: Budget;
}
export interface Fetched {
  chain: Chain;
  body?: Buffer;
}
export interface Asked {
  own?: (host: string) => boolean;
  headers?: Record<string, string>;
  method?: 'GET' | 'HEAD';
  /** Another cap on the body than the client's. */
  maxBytes?: number;
  /** Ask this address of the host and no other. */
  address?: string;
  /** Keep of each answer what a link is judged by, and no other header. */
  lean?: true;
}

interface Exchanged {
  exchange: Exchange;
  body?: Buffer;
}

/** The longest that a server's Retry-After is heeded. */
const LONGEST_PAUSE_MS = 30_000;
/**
 * Early hints and signs of life (RFC 9110 15.2) that one answer may send ahead; each costs as much to read as
 * an answer.
 */
const MOST_INTERIM = 20;
const ONE_MEBIBYTE = 1024 * 1024;
const REDIRECTS: ReadonlySet<number> = new Set([301, 302, 303, 307, 308]);

/** Ends one exchange: in time, when the audit is stopped, and when too many interim answers come. */
class Limits {
  private readonly abort = new AbortController();
  private readonly timer: NodeJS.Timeout;
  private readonly stop = (): void => this.abort.abort(this.outer?.reason);
  private interim = 0;

  constructor(
    timeoutMs: number,
    private readonly outer: AbortSignal | undefined,
  ) {
    this.timer = setTimeout(
      () => this.abort.abort(new ProbeError('timeout', 'no full answer in time')),
      timeoutMs,
    );
    outer?.addEventListener('abort', this.stop, { once: true });
  }

  get signal(): AbortSignal {
    return this.abort.signal;
  }

  readonly onInfo = (): void => {
    if (++this.interim > MOST_INTERIM)
      this.abort.abort(
        new ProbeError('too-large', `more than ${MOST_INTERIM} interim answers came before the answer`),
      );
  };

  /** Why the exchange ended, if these limits ended it. */
  get reason(): ProbeError | undefined {
    const reason: unknown = this.abort.signal.reason;
    return reason instanceof ProbeError ? reason : undefined;
  }

  end(): void {
    clearTimeout(this.timer);
    this.outer?.removeEventListener('abort', this.stop);
  }
}

export class HttpClient {
  private readonly origins: Origins;
  private readonly budget: Budget;

  constructor(
    dialer: Dialer,
    store: TrustStore,
    readonly options: HttpOptions,
  ) {
    this.budget = options.budget ?? new Budget();
    const longest = Math.max(options.maxBytes, options.longestBody ?? 0);
    this.origins = new Origins(dialer, store, { ...options, longestAnswer: longest + ONE_MEBIBYTE });
  }

  /** One request, no redirects followed. Never throws. */
  async exchange(
    address: string,
    method: 'GET' | 'HEAD',
    extra: Record<string, string> = {},
    more: Pick<Asked, 'maxBytes' | 'address' | 'lean'> = {},
  ): Promise<Exchanged> {
    const url = new URL(address);
    const exchange: Exchange = { url: address, method, headers: [], timing: { total: 0 } };
    const origin = this.origins.of(url, more.address);
    const leave = await this.enter(origin, url.hostname);
    const started = performance.now();
    const limits = new Limits(this.options.timeoutMs, this.options.signal);
    let body: Buffer | undefined;
    try {
      this.budget.begin();
      const answer = await this.request(url, method, extra, { origin, limits });
      note(exchange, answer, origin, performance.now() - started);
      exchange.headers = kept(exchange.headers, more.lean ? LEAN : undefined);
      this.budget.headers(sizeOf(exchange.headers));
      body = await readBody(answer.body, exchange, more.maxBytes ?? this.options.maxBytes);
      this.budget.body(body.length);
    } catch (error) {
      const known = limits.reason?.toJSON() ?? describe(error, url.protocol === 'https:');
      exchange.error = known;
      if (known.code === 'timeout' && exchange.status === undefined)
        origin.strike(new ProbeError('timeout', 'no answer in time, and none before'));
    } finally {
      limits.end();
      leave();
    }
    exchange.timing.total = round(performance.now() - started);
    return { exchange, body };
  }

  /** Waits for this request's turn, among all that ask the host. A stop lets it through: it is refused next. */
  private async enter(origin: Origin, host: string): Promise<() => void> {
    const { gate = OPEN_GATE, signal } = this.options;
    const leave = await gate.enter(host, signal).catch((error: unknown) => {
      if (!signal?.aborted) throw error;
      return () => {};
    });
    await origin.turn();
    return leave;
  }

  private request(
    url: URL,
    method: 'GET' | 'HEAD',
    extra: Record<string, string>,
    { origin, limits }: { origin: Origin; limits: Limits },
  ): Promise<WireAnswer> {
    const { signal } = this.options;
    if (signal?.aborted)
      throw signal.reason instanceof ProbeError ? signal.reason : new ProbeError('stopped', 'stopped');
    if (origin.dead) throw origin.dead;
    const { path, headers } = openDoor(this.options.access, url, {
      'user-agent': this.options.agent,
      accept: 'text/html,application/xhtml+xml,application/xml;q=0.9,*/*;q=0.8',
      'accept-encoding': 'gzip, br, deflate',
      'accept-language': 'en',
      ...extra,
    });
    return origin.send({ path, method, headers, signal: limits.signal, onInfo: limits.onInfo });
  }

  /** A request with its redirects. Hosts for which `own` is false are asked for a HEAD only. */
  async follow(address: string, options: Asked = {}): Promise<Fetched> {
    const chain: Chain = { start: address, hops: [], end: 'error' };
    const seen = new Set<string>();
    let next = address;
    for (;;) {
      const { exchange, body } = await this.hop(next, options);
      chain.hops.push(exchange);
      seen.add(next);
      if (exchange.error) {
        chain.error = exchange.error;
        return { chain };
      }
      const target = redirectTarget(exchange);
      if (target === undefined) {
        chain.end = 'answer';
        return { chain, body };
      }
      const fault = this.redirectFault(target, seen, chain.hops.length);
      if (fault) {
        chain.error = fault;
        return { chain };
      }
      next = target!;
    }
  }

  private hop(url: string, { own, method = 'GET', headers, ...more }: Asked): Promise<Exchanged> {
    const isOwn = own?.(new URL(url).hostname) ?? true;
    return this.exchange(url, isOwn ? method : 'HEAD', isOwn ? headers : {}, more);
  }

  /** Why a redirect is not followed. */
  private redirectFault(
    target: string | null,
    seen: ReadonlySet<string>,
    hops: number,
  ): { code: NetworkErrorCode; message: string } | undefined {
    const { maxRedirects } = this.options;
    if (target === null)
      return { code: 'bad-url', message: 'it redirects to something that is no http address' };
    if (seen.has(target))
      return { code: 'redirect-loop', message: `its redirects go in a circle: ${target}` };
    return hops > maxRedirects
      ? { code: 'too-many-redirects', message: `more than ${maxRedirects} redirects` }
      : undefined;
  }

  /**
   * The same, and once more after Retry-After or a short pause when the answer is a 5xx or asks for patience
   * (429), or no answer came in time: a fault counts only when it comes again.
   * @returns the last try, and the first beside it when there were two
   */
  async followTwice(address: string, options: Asked = {}): Promise<Fetched & { firstTry?: Chain }> {
    const first = await this.follow(address, options);
    const status = finalStatus(first.chain) ?? 0;
    const silent = first.chain.error?.code === 'timeout' ? first.chain.hops.at(-1) : undefined;
    if (silent && silent.status === undefined) return this.followLater(silent.url, address, options, first);
    if (status < 500 && status !== 429) return first;
    const last = lastAnswer(first.chain)!;
    const pause = this.pauseFor(last);
    // the whole host is left alone, not this address only
    if (pause.asked) this.origins.of(new URL(last.url)).pause(pause.ms);
    await sleep(pause.ms, this.options.signal);
    return { ...(await this.follow(address, options)), firstTry: first.chain };
  }

  /** Once more after a silence: no verdict rests on one slow moment. */
  private async followLater(silent: string, address: string, options: Asked, first: Fetched) {
    await sleep(this.options.retryPauseMs, this.options.signal);
    if (this.options.signal?.aborted) return first;
    this.origins.of(new URL(silent)).forgive();
    return { ...(await this.follow(address, options)), firstTry: first.chain };
  }

  /**
   * How long to wait: as the server asks (RFC 9110 10.2.3, seconds or a date), within reason, else a short
   * pause.
   */
  private pauseFor(answer: Exchange): { ms: number; asked: boolean } {
    const { retryPauseMs } = this.options;
    const text = headerValues(answer, 'retry-after')[0];
    const at =
      text !== undefined && !/^\d+$/.test(text)
        ? Date.parse(text) - Date.parse(headerValues(answer, 'date')[0] ?? '')
        : Number(text ?? NaN) * 1000;
    return at > 0
      ? { ms: Math.min(at, retryPauseMs * 5, LONGEST_PAUSE_MS), asked: true }
      : { ms: retryPauseMs, asked: false };
  }

  /** Ends all connections. */
  close(): Promise<void> {
    return this.origins.close();
  }
}

/** Headers that a link's answer is judged by. */
const LEAN: ReadonlySet<string> = new Set(['location', 'content-type', 'content-length', 'retry-after']);
/** More than this of one answer's headers says nothing sensible (common practice: servers take 8 to 16 KB). */
const MOST_HEADER_BYTES = 32 * 1024;

/** The headers that are kept of an answer. */
function kept(headers: readonly Header[], only?: ReadonlySet<string>): Header[] {
  const out: Header[] = [];
  let size = 0;
  for (const header of headers) {
    if (only && !only.has(header[0].toLowerCase())) continue;
    size += header[0].length + header[1].length;
    if (size > MOST_HEADER_BYTES) break;
    out.push(header);
  }
  return out;
}
const sizeOf = (headers: readonly Header[]): number =>
  headers.reduce((sum, [name, value]) => sum + name.length + value.length, 0);

/** Writes down what an answer says of itself. @param elapsed since the request began, in milliseconds */
function note(exchange: Exchange, answer: WireAnswer, origin: Origin, elapsed: number): void {
  const fresh = origin.takeFresh();
  if (fresh) Object.assign(exchange.timing, rounded({ ...fresh }));
  const setUp = fresh ? fresh.resolve + fresh.connect + (fresh.tls ?? 0) : 0;
  exchange.timing.firstByte = round(Math.max(0, elapsed - setUp));
  exchange.address = origin.address;
  exchange.status = answer.status;
  if (answer.reason) exchange.reason = answer.reason.slice(0, 100);
  exchange.httpVersion = origin.httpVersion;
  exchange.headers = answer.headers;
}

/** Where an answer redirects to: undefined where it does not, null where that is no http address. */
function redirectTarget(exchange: Exchange): string | null | undefined {
  const location = headerValues(exchange, 'location')[0];
  if (location === undefined || !REDIRECTS.has(exchange.status!)) return undefined;
  const target = parseUrl(location, exchange.url);
  if (!target || !/^https?:$/.test(target.protocol)) return null;
  target.hash = '';
  return target.href;
}

const round = (ms: number): number => Math.round(ms * 10) / 10;
function rounded(t: Record<string, number | undefined>): Record<string, number> {
  return Object.fromEntries(
    Object.entries(t)
      .filter(([, v]) => v !== undefined)
      .map(([k, v]) => [k, round(v!)]),
  );
}
