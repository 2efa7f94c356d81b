/**
 * The servers that are asked: a pool of connections for each, made by the dialer, and the politeness that is
 * owed to it.
 */
import type net from 'node:net';
import type tls from 'node:tls';
import { Pool } from 'undici';
import type { Header } from '#core/facts/evidence';
import type { Dialer } from '../dialer';
import { describe, type ProbeError } from '../network-error';
import { handshake, type TrustStore } from '../tls';
import { FloodGuard } from './flood-guard';
import { H2Session } from './h2';

export interface OriginOptions {
  timeoutMs: number;
  /** Requests at once to one origin. */
  connections: number;
  /** Least time between the starts of two requests to one origin, in milliseconds. */
  delayMs?: number;
  /** The most bytes that any one answer may bring. */
  longestAnswer: number;
  signal?: AbortSignal;
}

/** One request as it goes over the wire. */
export interface WireRequest {
  path: string;
  method: 'GET' | 'HEAD';
  headers: Record<string, string>;
  signal: AbortSignal;
  /** Called for each interim answer (RFC 9110 15.2). */
  onInfo: () => void;
}
export interface WireAnswer {
  status: number;
  reason?: string;
  headers: Header[];
  body: import('node:stream').Readable;
}

const HEADER_BYTES = 64 * 1024;
const MOST_HEADERS = 200;
const LONGEST_HEADER = 8192;
const KEEP_ALIVE_MS = 4000;
const HANDSHAKE_MS = 10_000;
/** After so many silences a host is not waited for again in the same audit. */
const STRIKES = 2;
const NO_ALPN = /NO_APPLICATION_PROTOCOL/;

interface Times {
  resolve: number;
  connect: number;
  tls?: number;
}

/** One server, by its scheme, host and port. */
export class Origin {
  address?: string;
  private fresh?: Times;
  private strikes = 0;
  /** Why it is not asked any more. */
  dead?: ProbeError;
  private next = 0;
  private pausedUntil = 0;
  private h2?: H2Session;
  private hasTriedH2 = false;
  private hasAnswered = false;
  private readonly pool: Pool;
  private readonly secure: boolean;
  private readonly host: string;
  private readonly port: number;

  constructor(
    private readonly url: URL,
    /** This address of the host and no other. */
    private readonly only: string | undefined,
    private readonly net: { dialer: Dialer; store: TrustStore; flood: FloodGuard },
    private readonly options: OriginOptions,
  ) {
    this.secure = url.protocol === 'https:';
    this.host = url.hostname.replace(/^\[|\]$/g, '');
    this.port = Number(url.port) || (this.secure ? 443 : 80);
    this.pool = new Pool(url.origin, {
      connections: options.connections,
      pipelining: 1,
      maxHeaderSize: HEADER_BYTES,
      keepAliveTimeout: KEEP_ALIVE_MS,
      headersTimeout: options.timeoutMs,
      bodyTimeout: options.timeoutMs,
      connect: (_options, callback) => {
        void this.open().then(
          (socket) => callback(null, socket),
          (error: unknown) => {
            if (NO_ALPN.test((error as { code?: string }).code ?? ''))
              this.h2 ??= new H2Session(url.origin, () => this.open(['h2']) as Promise<tls.TLSSocket>);
            callback(error as Error, null);
          },
        );
      },
    });
  }

  get httpVersion(): '1.1' | '2' {
    return this.h2 ? '2' : '1.1';
  }

  private async open(alpn?: string[]): Promise<net.Socket | tls.TLSSocket> {
    const { dialer, store, flood } = this.net;
    const { host } = this;
    const dialled = await dialer.connect(host, this.port, this.only);
    const before = performance.now();
    const timeoutMs = Math.min(this.options.timeoutMs, HANDSHAKE_MS);
    const socket = this.secure
      ? await handshake(dialled.socket, { host, context: store.context, timeoutMs, alpn })
      : dialled.socket;
    this.address = dialled.address;
    this.fresh = { ...dialled.timing, ...(this.secure ? { tls: performance.now() - before } : {}) };
    flood.watch(socket);
    return socket;
  }

  /** What setting up the connection took, where this request was the first on it. */
  takeFresh(): Times | undefined {
    const { fresh } = this;
    this.fresh = undefined;
    return fresh;
  }

  /** Politeness: waits for this request's turn. */
  async turn(): Promise<void> {
    const { delayMs = 0, signal } = this.options;
    if (!delayMs && !this.pausedUntil) return;
    const now = performance.now();
    const start = Math.max(now, this.next, this.pausedUntil);
    this.next = start + delayMs;
    if (start > now) await sleep(start - now, signal);
  }

  /** Leaves the whole host alone for a while. */
  pause(ms: number): void {
    this.pausedUntil = performance.now() + ms;
  }

  /** It kept silent once more. @param reason why it is not asked again, once that was too often */
  strike(reason: ProbeError): void {
    if (++this.strikes >= STRIKES) this.dead = reason;
  }

  /** Over HTTP/1.1, or over HTTP/2 once the server has refused the older one. */
  async send(request: WireRequest): Promise<WireAnswer> {
    const { path, method, headers, signal, onInfo } = request;
    if (!this.h2) {
      try {
        const answer = await this.pool.request({
          path,
          method,
          signal,
          responseHeaders: 'raw',
          headers,
          onInfo,
        });
        this.strikes = 0;
        this.hasAnswered = true;
        return {
          status: answer.statusCode,
          reason: answer.statusText,
          headers: pairs(answer.headers as unknown as string[]),
          body: answer.body,
        };
      } catch (error) {
        // refused while it was asked: the connection says so by making this
        if (!(this.h2 as H2Session | undefined)) return this.sendOtherwise(error, request);
      }
    }
    const answer = await this.h2!.request(path, method, headers, signal);
    this.strikes = 0;
    return answer;
  }

  /**
   * A server that speaks HTTP/2 alone may cut HTTP/1.1 off without the alert that says so (RFC 7301 3.2): it is asked
   * once by HTTP/2, and by that alone from then on where it answers.
   * @throws what went wrong first, where that helps nothing
   */
  private async sendOtherwise(
    error: unknown,
    { path, method, headers, signal }: WireRequest,
  ): Promise<WireAnswer> {
    if (!this.secure || this.hasTriedH2 || this.hasAnswered || !isCutOff(error)) throw error;
    this.hasTriedH2 = true;
    const session = new H2Session(this.url.origin, () => this.open(['h2']) as Promise<tls.TLSSocket>);
    try {
      const answer = await session.request(path, method, headers, signal);
      this.h2 = session;
      return answer;
    } catch {
      await session.close();
      throw error;
    }
  }

  /** It is asked once more although it kept silent. */
  forgive(): void {
    this.strikes = 0;
    this.dead = undefined;
  }

  async close(): Promise<void> {
    await Promise.all([this.pool.destroy().catch(() => {}), this.h2?.close()]);
  }
}

/** The connection ended without an answer, in the handshake or after it. */
function isCutOff(error: unknown): boolean {
  const { code, message } = describe(error, true);
  return code === 'reset' || (code === 'tls' && /cut off/.test(message));
}

function pairs(raw: string[]): Header[] {
  const out: Header[] = [];
  for (let i = 0; i + 1 < raw.length && out.length < MOST_HEADERS; i += 2)
    out.push([String(raw[i]), String(raw[i + 1]).slice(0, LONGEST_HEADER)]);
  return out;
}

/** All servers that one client asks. */
export class Origins {
  private readonly known = new Map<string, Origin>();
  private readonly flood: FloodGuard;

  constructor(
    private readonly dialer: Dialer,
    private readonly store: TrustStore,
    private readonly options: OriginOptions,
  ) {
    this.flood = new FloodGuard(options.longestAnswer);
  }

  /** @param only this address of the host and no other */
  of(url: URL, only?: string): Origin {
    const key = only === undefined ? url.origin : `${url.origin} ${only}`;
    let origin = this.known.get(key);
    if (!origin) {
      const { dialer, store, flood } = this;
      this.known.set(key, (origin = new Origin(url, only, { dialer, store, flood }, this.options)));
    }
    return origin;
  }

  /** Ends all connections. */
  async close(): Promise<void> {
    await Promise.all([...this.known.values()].map((o) => o.close()));
    this.flood.end();
  }
}

/** Ends early when the audit is stopped. */
export function sleep(ms: number, signal?: AbortSignal): Promise<void> {
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
