/** HTTP Archive 1.2: archives recorded elsewhere in. */
import { parseUrl } from '#core/extract/address';
import type { Chain, Exchange, Header, NetworkErrorCode } from '#core/facts/evidence';
import { headerOf } from './archive';

/** A chain read from an archive, with the body of its last answer where the archive has it. */
export interface ArchivedChain {
  chain: Chain;
  body?: { text: string; base64: boolean };
}

const MOST_ENTRIES = 50_000;
const object = (v: unknown): Record<string, unknown> | null =>
  typeof v === 'object' && v !== null && !Array.isArray(v) ? (v as Record<string, unknown>) : null;
const list = (v: unknown): unknown[] => (Array.isArray(v) ? v : []);
const text = (v: unknown, most = 8192): string => (typeof v === 'string' ? v.slice(0, most) : '');
const number = (v: unknown): number | undefined =>
  typeof v === 'number' && Number.isFinite(v) && v >= 0 ? v : undefined;
const ERRORS: ReadonlySet<string> = new Set<NetworkErrorCode>([
  'no-name',
  'no-address',
  'forbidden-address',
  'refused',
  'reset',
  'timeout',
  'tls',
  'protocol',
  'too-large',
  'bad-encoding',
  'redirect-loop',
  'too-many-redirects',
  'bad-url',
  'stopped',
  'dns',
]);
function errorOf(v: unknown): Chain['error'] {
  const e = object(v);
  return e
    ? {
        code: (ERRORS.has(text(e.code)) ? e.code : 'protocol') as NetworkErrorCode,
        message: text(e.message, 300),
      }
    : undefined;
}

/** Only what is known: undefined fields left out. */
const known = <T extends object>(fields: T): { [K in keyof T]?: NonNullable<T[K]> } =>
  Object.fromEntries(Object.entries(fields).filter(([, v]) => v !== undefined)) as never;

type Json = Record<string, unknown>;

/** Times as they were measured, where the archive is one of ours; else as the format splits them. */
function timingOf(entry: Json): Exchange['timing'] {
  const own = object(entry._timing);
  if (own)
    return {
      total: number(own.total) ?? 0,
      ...known({
        resolve: number(own.resolve),
        connect: number(own.connect),
        tls: number(own.tls),
        firstByte: number(own.firstByte),
      }),
    };
  const timings = object(entry.timings) ?? {};
  const ssl = number(timings.ssl);
  const connect = number(timings.connect);
  return {
    total: number(entry.time) ?? 0,
    ...known({
      resolve: number(timings.dns),
      connect: connect === undefined ? undefined : Math.max(0, connect - (ssl ?? 0)),
      tls: ssl,
      firstByte: number(timings.wait),
    }),
  };
}

/** The address that was connected to, with its port. */
function addressOf(entry: Json, url: string): string | undefined {
  const address = text(entry.serverIPAddress, 60);
  if (!address) return undefined;
  const usual = url.startsWith('https:') ? '443' : '80';
  const connection = text(entry.connection, 10);
  const port = /^\d+$/.test(connection) ? connection : usual;
  return `${address.includes(':') ? `[${address}]` : address}:${port}`;
}

const headersOf = (given: unknown): Header[] =>
  list(given)
    .slice(0, 200)
    .flatMap((h): Header[] => {
      const o = object(h);
      return o && text(o.name) ? [[text(o.name), text(o.value)]] : [];
    });

function bytesOf(response: Json): Exchange['bytes'] {
  const encoded = number(response.bodySize);
  const decoded = number(object(response.content)?.size);
  return encoded === undefined || decoded === undefined ? undefined : { encoded, decoded };
}

function versionOf(response: Json): '1.1' | '2' {
  return /^h(?:ttp\/)?2/.test(text(response.httpVersion).toLowerCase()) ? '2' : '1.1';
}

function bodyOf(response: Json): ArchivedChain['body'] {
  const content = object(response.content);
  if (typeof content?.text !== 'string') return undefined;
  return { text: content.text, base64: content.encoding === 'base64' };
}

const NO_ANSWER = { code: 'protocol', message: 'the archive has no answer to this request' } as const;

/** One entry as an exchange; null for what is no request that a visitor makes. */
function exchangeOf(entry: Json): { exchange: Exchange; body?: ArchivedChain['body'] } | null {
  const request = object(entry.request);
  const response = object(entry.response);
  const url = text(request?.url);
  const method = text(request?.method);
  if (!response || (method !== 'GET' && method !== 'HEAD')) return null;
  if (!parseUrl(url) || !/^https?:/.test(url)) return null;
  // an archive writes 0 where no answer came
  const status = number(response.status) || undefined;
  const exchange: Exchange = {
    url: new URL(url).href,
    method,
    headers: headersOf(response.headers),
    timing: timingOf(entry),
    ...known({
      status,
      httpVersion: status === undefined ? undefined : versionOf(response),
      reason: text(response.statusText, 100) || undefined,
      address: addressOf(entry, url),
      bytes: bytesOf(response),
      cut: entry._cut === true || undefined,
      error: errorOf(entry._error) ?? (status ? undefined : NO_ANSWER),
    }),
  };
  const body = bodyOf(response);
  return body ? { exchange, body } : { exchange };
}

/** Where a redirect leads; undefined for other answers. */
function redirectOf({ status, headers, url }: Exchange, response: unknown): string | undefined {
  if (![301, 302, 303, 307, 308].includes(status ?? 0)) return undefined;
  const next = parseUrl(headerOf(headers, 'location') || text(object(response)?.redirectURL), url);
  if (!next) return undefined;
  next.hash = '';
  return next.href;
}

/** Puts requests together into chains. */
class Chains {
  readonly all: ArchivedChain[] = [];
  private readonly byNumber = new Map<number, ArchivedChain>();
  /** Chains that wait for the request their last redirect leads to. */
  private readonly open = new Map<string, ArchivedChain>();

  add(entry: Json): void {
    const read = exchangeOf(entry);
    if (!read) return;
    const { exchange, body } = read;
    const own = number(entry._chain);
    const at = this.chainFor(exchange.url, own);
    at.chain.hops.push(exchange);
    if (body) at.body = body;
    else delete at.body;
    const failure = errorOf(entry._chainError) ?? exchange.error;
    at.chain.end = entry._end === 'error' || failure ? 'error' : 'answer';
    if (failure) at.chain.error = failure;
    else delete at.chain.error;
    const next = own === undefined ? redirectOf(exchange, entry.response) : undefined;
    if (next !== undefined) this.open.set(next, at);
  }

  /** The chain that a request goes on with, or a new one. */
  private chainFor(url: string, own: number | undefined): ArchivedChain {
    const known = own === undefined ? this.open.get(url) : this.byNumber.get(own);
    if (own === undefined) this.open.delete(url);
    if (known) return known;
    const made: ArchivedChain = { chain: { start: url, hops: [], end: 'answer' } };
    this.all.push(made);
    if (own !== undefined) this.byNumber.set(own, made);
    return made;
  }
}

/**
 * Reads an archive. Requests that redirect are put together with what they lead to; methods other than GET
 * and HEAD are left out.
 * @throws Error with a sentence when it is no HAR file
 */
export function fromHar(source: string): ArchivedChain[] {
  let data: unknown;
  try {
    data = JSON.parse(source.replace(/^\ufeff/, ''));
  } catch (error) {
    throw new Error(`no HAR file: ${(error as Error).message.slice(0, 120)}`);
  }
  const log = object(object(data)?.log);
  if (!log || !Array.isArray(log.entries)) throw new Error('no HAR file: it has no log with entries');
  const chains = new Chains();
  for (const raw of log.entries.slice(0, MOST_ENTRIES)) {
    const entry = object(raw);
    if (entry) chains.add(entry);
  }
  return chains.all;
}
