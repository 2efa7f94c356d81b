/**
 * HTTP with everything recorded: one exchange at a time over undici's pools, each connection made by the
 * dialer.
 */
import { Pool } from 'undici';
import type tls from 'node:tls';
import { parseUrl } from '#core/extract/address';
import type { Chain, Exchange, Header } from '#core/facts/evidence';
import { finalStatus, headerValues, lastAnswer } from '#core/facts/evidence';
import type { Dialer } from '../dialer';
import { ProbeError, describe } from '../network-error';
import { handshake, type TrustStore } from '../tls';
import { decodeBody } from './decode';
import { FloodGuard } from './flood-guard';
import { H2Session } from './h2';
import { openDoor, type WayIn } from './way-in';

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
  /** The largest body that any one request may allow for itself. */
  longestBody?: number;
  signal?: AbortSignal;
  /** How the audit gets past a door: never recorded. */
  wayIn?: WayIn;
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
}

interface Origin {
  pool: Pool;
  h2?: H2Session;
  address?: string;
  fresh?: { resolve: number; connect: number; tls?: number };
  strikes: number;
  dead?: ProbeError;
  next: number;
  pausedUntil: number;
}

const HEADER_BYTES = 64 * 1024;
/** After so many silences a host is not waited for again in the same audit. */
const STRIKES = 2;
/** The longest that a server's Retry-After is heeded. */
const LONGEST_PAUSE_MS = 30_000;
/**
 * Early hints and signs of life (RFC 9110 15.2) that one answer may send ahead; each costs as much to read as
 * an answer.
 */
const MOST_INTERIM = 20;
const NO_ALPN = /NO_APPLICATION_PROTOCOL/;

export class HttpClient {
  private readonly origins = new Map<string, Origin>();
  private readonly flood: FloodGuard;
  constructor(
    private readonly dialer: Dialer,
    private readonly store: TrustStore,
    readonly options: HttpOptions,
  ) {
    this.flood = new FloodGuard(Math.max(options.maxBytes, options.longestBody ?? 0) + 1024 * 1024);
  }

  private origin(url: URL, only?: string): Origin {
    const key = only === undefined ? url.origin : `${url.origin} ${only}`;
    let origin = this.origins.get(key);
    if (!origin) {
      const made: Origin = { strikes: 0, next: 0, pausedUntil: 0 } as Origin;
      const secure = url.protocol === 'https:';
      const host = url.hostname.replace(/^\[|\]$/g, '');
      const port = Number(url.port) || (secure ? 443 : 80);
      made.pool = new Pool(url.origin, {
        connections: this.options.connections,
        pipelining: 1,
        maxHeaderSize: HEADER_BYTES,
        keepAliveTimeout: 4000,
        headersTimeout: this.options.timeoutMs,
        bodyTimeout: this.options.timeoutMs,
        connect: (_options, callback) => {
          void this.open(made, host, port, secure, undefined, only).then(
            (socket) => callback(null, socket),
            (error: unknown) => {
              if (NO_ALPN.test((error as { code?: string }).code ?? ''))
                made.h2 ??= new H2Session(
                  url.origin,
                  () => this.open(made, host, port, true, ['h2'], only) as Promise<tls.TLSSocket>,
                );
              callback(error as Error, null);
            },
          );
        },
      });
      this.origins.set(key, (origin = made));
    }
    return origin;
  }

  private async open(
    origin: Origin,
    host: string,
    port: number,
    secure: boolean,
    alpn?: string[],
    only?: string,
  ): Promise<import('node:net').Socket | tls.TLSSocket> {
    const dialled = await this.dialer.connect(host, port, only);
    const before = performance.now();
    const socket = secure
      ? await handshake(dialled.socket, {
          host,
          context: this.store.context,
          timeoutMs: Math.min(this.options.timeoutMs, 10_000),
          alpn,
        })
      : dialled.socket;
    origin.address = dialled.address;
    origin.fresh = { ...dialled.timing, ...(secure ? { tls: performance.now() - before } : {}) };
    this.flood.watch(socket);
    return socket;
  }

  /** Politeness: waits for this request's turn at its origin. */
  private async turn(origin: Origin): Promise<void> {
    const now = performance.now();
    const start = Math.max(now, origin.next, origin.pausedUntil);
    origin.next = start + (this.options.delayMs ?? 0);
    if (start > now) await this.sleep(start - now);
  }

  /** One request, no redirects followed. Never throws. */
  async exchange(
    address: string,
    method: 'GET' | 'HEAD',
    extra: Record<string, string> = {},
    more: Pick<Asked, 'maxBytes' | 'address'> = {},
  ): Promise<{ exchange: Exchange; body?: Buffer }> {
    const url = new URL(address);
    const exchange: Exchange = { url: address, method, headers: [], timing: { total: 0 } };
    const origin = this.origin(url, more.address);
    if (this.options.delayMs || origin.pausedUntil) await this.turn(origin);
    const started = performance.now();
    const abort = new AbortController();
    const outer = this.options.signal;
    const stop = () => abort.abort();
    const timer = setTimeout(
      () => abort.abort(new ProbeError('timeout', 'no full answer in time')),
      this.options.timeoutMs,
    );
    outer?.addEventListener('abort', stop, { once: true });
    let body: Buffer | undefined;
    try {
      if (outer?.aborted) throw new ProbeError('stopped', 'stopped');
      if (origin.dead) throw origin.dead;
      const { path, headers } = openDoor(this.options.wayIn, url, {
        'user-agent': this.options.agent,
        accept: 'text/html,application/xhtml+xml,application/xml;q=0.9,*/*;q=0.8',
        'accept-encoding': 'gzip, br, deflate',
        'accept-language': 'en',
        ...extra,
      });
      let interim = 0;
      const onInfo = (): void => {
        if (++interim > MOST_INTERIM)
          abort.abort(
            new ProbeError('too-large', `more than ${MOST_INTERIM} interim answers came before the answer`),
          );
      };
      const answer = await this.send(origin, path, method, headers, abort.signal, onInfo);
      origin.strikes = 0;
      const headed = performance.now();
      const fresh = origin.fresh;
      if (fresh) {
        origin.fresh = undefined;
        Object.assign(exchange.timing, rounded(fresh));
      }
      const setUp = fresh ? fresh.resolve + fresh.connect + (fresh.tls ?? 0) : 0;
      exchange.timing.firstByte = round(Math.max(0, headed - started - setUp));
      exchange.address = origin.address;
      exchange.status = answer.status;
      if (answer.reason) exchange.reason = answer.reason.slice(0, 100);
      exchange.httpVersion = origin.h2 ? '2' : '1.1';
      exchange.headers = answer.headers;
      body = await this.read(answer.body, exchange, more.maxBytes ?? this.options.maxBytes);
    } catch (error) {
      const known =
        abort.signal.reason instanceof ProbeError
          ? abort.signal.reason.toJSON()
          : describe(error, url.protocol === 'https:');
      exchange.error = known;
      if (known.code === 'timeout' && exchange.status === undefined && ++origin.strikes >= STRIKES)
        origin.dead = new ProbeError('timeout', 'no answer in time, and none before');
    } finally {
      clearTimeout(timer);
      outer?.removeEventListener('abort', stop);
    }
    exchange.timing.total = round(performance.now() - started);
    return { exchange, body };
  }

  /** Over HTTP/1.1, or over HTTP/2 once an origin has refused the older one. */
  private async send(
    origin: Origin,
    path: string,
    method: 'GET' | 'HEAD',
    headers: Record<string, string>,
    signal: AbortSignal,
    onInfo: () => void,
  ): Promise<{ status: number; reason?: string; headers: Header[]; body: import('stream').Readable }> {
    if (!origin.h2) {
      try {
        const answer = await origin.pool.request({
          path,
          method,
          signal,
          responseHeaders: 'raw',
          headers,
          onInfo,
        });
        return {
          status: answer.statusCode,
          reason: answer.statusText,
          headers: pairs(answer.headers as unknown as string[]),
          body: answer.body,
        };
      } catch (error) {
        if (!(origin.h2 as H2Session | undefined)) throw error;
      }
    }
    return origin.h2!.request(path, method, headers, signal);
  }

  private async read(stream: import('stream').Readable, exchange: Exchange, cap: number): Promise<Buffer> {
    const chunks: Buffer[] = [];
    let size = 0;
    stream.on('error', () => {});
    for await (const chunk of stream) {
      size += (chunk as Buffer).length;
      chunks.push(chunk as Buffer);
      if (size > cap) {
        exchange.cut = true;
        stream.destroy();
        break;
      }
    }
    const encoded = chunks.length === 1 ? chunks[0]! : Buffer.concat(chunks);
    exchange.bytes = { encoded: size, decoded: size };
    if (exchange.cut) throw new ProbeError('too-large', `the answer is longer than ${cap} bytes`);
    const decoded = await decodeBody(encoded, headerValues(exchange, 'content-encoding').join(','), cap);
    exchange.bytes.decoded = decoded.length;
    return decoded;
  }

  /** A request with its redirects. Hosts for which `own` is false are asked for a HEAD only. */
  async follow(address: string, options: Asked = {}): Promise<Fetched> {
    const chain: Chain = { start: address, hops: [], end: 'error' };
    const seen = new Set<string>();
    let next = address;
    for (;;) {
      const own = options.own?.(new URL(next).hostname) ?? true;
      const { exchange, body } = await this.exchange(
        next,
        own ? (options.method ?? 'GET') : 'HEAD',
        own ? options.headers : {},
        options,
      );
      chain.hops.push(exchange);
      seen.add(next);
      if (exchange.error) {
        chain.error = exchange.error;
        return { chain };
      }
      const location = headerValues(exchange, 'location')[0];
      const redirect = location !== undefined && [301, 302, 303, 307, 308].includes(exchange.status!);
      if (!redirect) {
        chain.end = 'answer';
        return { chain, body };
      }
      const fault = (code: 'bad-url' | 'redirect-loop' | 'too-many-redirects', message: string): Fetched => {
        chain.error = { code, message };
        return { chain };
      };
      const target = parseUrl(location, next);
      if (!target || !/^https?:$/.test(target.protocol))
        return fault('bad-url', 'it redirects to something that is no http address');
      target.hash = '';
      next = target.href;
      if (seen.has(next)) return fault('redirect-loop', `its redirects go in a circle: ${next}`);
      if (chain.hops.length > this.options.maxRedirects)
        return fault('too-many-redirects', `more than ${this.options.maxRedirects} redirects`);
    }
  }

  /**
   * The same, and once more after Retry-After or a short pause when the answer is a 5xx or asks for patience
   * (429): a fault counts only when it comes again.
   * @returns the last try, and the first beside it when there were two
   */
  async followTwice(address: string, options: Asked = {}): Promise<Fetched & { firstTry?: Chain }> {
    const first = await this.follow(address, options);
    const status = finalStatus(first.chain) ?? 0;
    if (status < 500 && status !== 429) return first;
    const last = lastAnswer(first.chain)!;
    const pause = this.pauseFor(last);
    // the whole host is left alone, not this address only
    if (pause.asked) this.origin(new URL(last.url)).pausedUntil = performance.now() + pause.ms;
    await this.sleep(pause.ms);
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

  /** Ends early when the audit is stopped. */
  private sleep(ms: number): Promise<void> {
    const { signal } = this.options;
    if (signal?.aborted) return Promise.resolve();
    return new Promise((resolve) => {
      const end = () => {
        clearTimeout(timer);
        signal?.removeEventListener('abort', end);
        resolve();
      };
      const timer = setTimeout(end, ms);
      signal?.addEventListener('abort', end, { once: true });
    });
  }

  /** Ends all connections. */
  async close(): Promise<void> {
    await Promise.all(
      [...this.origins.values()].flatMap((o) => [o.pool.destroy().catch(() => {}), o.h2?.close()]),
    );
    this.flood.end();
  }
}

function pairs(raw: string[]): Header[] {
  const out: Header[] = [];
  for (let i = 0; i + 1 < raw.length && out.length < 200; i += 2)
    out.push([String(raw[i]), String(raw[i + 1]).slice(0, 8192)]);
  return out;
}
const round = (ms: number): number => Math.round(ms * 10) / 10;
function rounded(t: Record<string, number | undefined>): Record<string, number> {
  return Object.fromEntries(
    Object.entries(t)
      .filter(([, v]) => v !== undefined)
      .map(([k, v]) => [k, round(v!)]),
  );
}
