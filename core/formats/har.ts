/**
 * HTTP Archive 1.2: the HTTP part of evidence out, and archives recorded elsewhere in. The format's published
 * schema checks it in the tests.
 */
import { parseUrl } from '#core/extract/address';
import type { Chain, Evidence, Exchange, Header, NetworkErrorCode } from '#core/facts/evidence';

interface NameValue {
  name: string;
  value: string;
}
export interface HarEntry {
  startedDateTime: string;
  time: number;
  request: {
    method: string;
    url: string;
    httpVersion: string;
    cookies: NameValue[];
    headers: NameValue[];
    queryString: NameValue[];
    headersSize: number;
    bodySize: number;
  };
  response: {
    status: number;
    statusText: string;
    httpVersion: string;
    cookies: NameValue[];
    headers: NameValue[];
    content: { size: number; compression?: number; mimeType: string; text?: string; encoding?: string };
    redirectURL: string;
    headersSize: number;
    bodySize: number;
  };
  cache: Record<string, never>;
  timings: {
    blocked: number;
    dns: number;
    connect: number;
    send: number;
    wait: number;
    receive: number;
    ssl: number;
  };
  serverIPAddress?: string;
  connection?: string;
  pageref?: string;
  /**
   * Armband's own fields (the format lets names with an underscore stand): which chain, its end, and what
   * went wrong.
   */
  _chain?: number;
  _end?: Chain['end'];
  _error?: { code: string; message: string };
  _chainError?: { code: string; message: string };
  _cut?: boolean;
  _timing?: Exchange['timing'];
}
export interface Har {
  log: {
    version: string;
    creator: { name: string; version: string };
    pages: HarPage[];
    entries: HarEntry[];
    comment?: string;
  };
}
interface HarPage {
  startedDateTime: string;
  id: string;
  title: string;
  pageTimings: { onContentLoad: number; onLoad: number };
}

const MISSING = -1;
const ms = (n: number | undefined): number => n ?? MISSING;
const pairs = (headers: readonly Header[]): NameValue[] => headers.map(([name, value]) => ({ name, value }));
const header = (headers: readonly Header[], name: string): string =>
  headers.find(([n]) => n.toLowerCase() === name)?.[1] ?? '';
const VERSIONS: Record<string, string> = { '1.1': 'HTTP/1.1', '2': 'HTTP/2' };

function entryOf(
  exchange: Exchange,
  chain: Chain,
  number: number,
  last: boolean,
  startedDateTime: string,
): HarEntry {
  const { timing, bytes, headers } = exchange;
  const url = new URL(exchange.url);
  const httpVersion = VERSIONS[exchange.httpVersion ?? ''] ?? 'HTTP/1.1';
  const known = (timing.resolve ?? 0) + (timing.connect ?? 0) + (timing.tls ?? 0);
  const wait = timing.firstByte ?? 0;
  const receive = Math.max(0, timing.total - known - wait);
  // "connect" holds the TLS handshake as well (HAR 1.2, timings)
  const timings = {
    blocked: MISSING,
    dns: ms(timing.resolve),
    connect: timing.connect === undefined ? MISSING : timing.connect + (timing.tls ?? 0),
    send: 0,
    wait,
    receive,
    ssl: ms(timing.tls),
  };
  const at = exchange.address ? /^\[?([^\]]*?)\]?:(\d+)$/.exec(exchange.address) : null;
  return {
    startedDateTime,
    time: [timings.dns, timings.connect, timings.send, timings.wait, timings.receive].reduce(
      (a, b) => a + Math.max(0, b),
      0,
    ),
    request: {
      method: exchange.method,
      url: exchange.url,
      httpVersion,
      cookies: [],
      headers: [{ name: 'Host', value: url.host }],
      queryString: [...url.searchParams].map(([name, value]) => ({ name, value })),
      headersSize: MISSING,
      bodySize: 0,
    },
    response: {
      status: exchange.status ?? 0,
      statusText: exchange.reason ?? '',
      httpVersion,
      cookies: [],
      headers: pairs(headers),
      content: {
        size: bytes?.decoded ?? 0,
        ...(bytes ? { compression: bytes.decoded - bytes.encoded } : {}),
        mimeType: header(headers, 'content-type') || 'x-unknown',
      },
      redirectURL: header(headers, 'location'),
      headersSize: MISSING,
      bodySize: bytes?.encoded ?? MISSING,
    },
    cache: {},
    timings,
    ...(at ? { serverIPAddress: at[1], connection: at[2] } : {}),
    _chain: number,
    ...(last ? { _end: chain.end, ...(chain.error ? { _chainError: chain.error } : {}) } : {}),
    ...(exchange.error ? { _error: exchange.error } : {}),
    ...(exchange.cut ? { _cut: true } : {}),
    _timing: timing,
  };
}

/** All chains of an evidence, in the order they stand there. */
export function chainsOf(evidence: Evidence): Chain[] {
  return [
    ...evidence.hosts.flatMap((h) => [h.http, h.https, h.httpPath, h.httpsPath]),
    ...evidence.subdomains.map((s) => s.chain),
    evidence.robots.chain,
    ...evidence.sitemaps.map((s) => s.chain),
    ...evidence.pages.flatMap((p) => (p.firstTry ? [p.firstTry, p.chain] : [p.chain])),
    ...evidence.assets.map((a) => a.chain),
    ...evidence.links.map((l) => l.chain),
    ...(evidence.notFound ? [evidence.notFound] : []),
    ...[
      ...evidence.paths,
      ...evidence.folders,
      ...evidence.tokenFiles,
      ...evidence.former,
      ...evidence.variants,
    ].map((p) => p.chain),
    ...(evidence.hidden ?? []).map((p) => p.chain),
    ...(evidence.manifest ? [evidence.manifest.chain] : []),
    ...(evidence.bypass ? [evidence.bypass.chain] : []),
    ...(evidence.registration?.chain ? [evidence.registration.chain] : []),
  ];
}

/**
 * The HTTP part as an archive. Bodies are not part of evidence, nor are request headers that could hold a
 * secret.
 */
export function toHar(evidence: Evidence): Har {
  const pageOf = new Map(evidence.pages.map((p, i) => [p.chain, `page_${i + 1}`]));
  return {
    log: {
      version: '1.2',
      creator: { name: 'Armband', version: evidence.agent.match(/\/([\d.]+)/)?.[1] ?? '0' },
      pages: evidence.pages.map((p, i) => ({
        startedDateTime: evidence.startedAt,
        id: `page_${i + 1}`,
        title: p.facts?.titles[0]?.text ?? p.url,
        pageTimings: { onContentLoad: MISSING, onLoad: MISSING },
      })),
      entries: chainsOf(evidence).flatMap((chain, number) =>
        chain.hops.map((hop, i) => ({
          ...entryOf(hop, chain, number, i === chain.hops.length - 1, evidence.startedAt),
          ...(pageOf.has(chain) ? { pageref: pageOf.get(chain) } : {}),
        })),
      ),
      comment: `Evidence of ${evidence.target.url}, collected ${evidence.startedAt}`,
    },
  };
}

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

function exchangeOf(
  entry: Record<string, unknown>,
): { exchange: Exchange; body?: ArchivedChain['body'] } | null {
  const request = object(entry.request),
    response = object(entry.response);
  const url = text(request?.url);
  const method = text(request?.method);
  if (
    !request ||
    !response ||
    !parseUrl(url) ||
    !/^https?:/.test(url) ||
    (method !== 'GET' && method !== 'HEAD')
  )
    return null;
  const timings = object(entry.timings) ?? {};
  const own = object(entry._timing);
  const content = object(response.content) ?? {};
  const status = number(response.status);
  const encoded = number(response.bodySize),
    size = number(content.size);
  const ssl = number(timings.ssl),
    connect = number(timings.connect);
  const drop = <T extends object>(o: T): T =>
    Object.fromEntries(Object.entries(o).filter(([, v]) => v !== undefined)) as T;
  const timing = own
    ? {
        total: number(own.total) ?? 0,
        ...drop({
          resolve: number(own.resolve),
          connect: number(own.connect),
          tls: number(own.tls),
          firstByte: number(own.firstByte),
        }),
      }
    : {
        total: number(entry.time) ?? 0,
        ...drop({
          resolve: number(timings.dns),
          connect: connect === undefined ? undefined : Math.max(0, connect - (ssl ?? 0)),
          tls: ssl,
          firstByte: number(timings.wait),
        }),
      };
  const version = text(response.httpVersion).toLowerCase();
  const address = text(entry.serverIPAddress, 60);
  const connection = text(entry.connection, 10);
  const exchange: Exchange = {
    url: new URL(url).href,
    method,
    headers: list(response.headers)
      .slice(0, 200)
      .flatMap((h): Header[] => {
        const o = object(h);
        return o && text(o.name) ? [[text(o.name), text(o.value)]] : [];
      }),
    timing,
    ...(status
      ? { status, httpVersion: /^h(?:ttp\/)?2/.test(version) ? ('2' as const) : ('1.1' as const) }
      : {}),
    ...(text(response.statusText, 100) ? { reason: text(response.statusText, 100) } : {}),
    ...(address
      ? {
          address: `${address.includes(':') ? `[${address}]` : address}:${/^\d+$/.test(connection) ? connection : url.startsWith('https:') ? '443' : '80'}`,
        }
      : {}),
    ...(encoded !== undefined && size !== undefined ? { bytes: { encoded, decoded: size } } : {}),
    ...(entry._cut === true ? { cut: true } : {}),
  };
  const error =
    errorOf(entry._error) ??
    (status
      ? undefined
      : { code: 'protocol' as const, message: 'the archive has no answer to this request' });
  if (error) exchange.error = error;
  return {
    exchange,
    ...(typeof content.text === 'string'
      ? { body: { text: content.text, base64: content.encoding === 'base64' } }
      : {}),
  };
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
  const chains: ArchivedChain[] = [];
  const byNumber = new Map<number, ArchivedChain>();
  /** Chains that wait for the request their last redirect leads to. */
  const open = new Map<string, ArchivedChain>();
  for (const raw of log.entries.slice(0, MOST_ENTRIES)) {
    const entry = object(raw);
    const read = entry && exchangeOf(entry);
    if (!read) continue;
    const { exchange, body } = read;
    const own = number(entry._chain);
    let at = own === undefined ? open.get(exchange.url) : byNumber.get(own);
    if (own === undefined) open.delete(exchange.url);
    if (!at) {
      at = { chain: { start: exchange.url, hops: [], end: 'answer' } };
      chains.push(at);
      if (own !== undefined) byNumber.set(own, at);
    }
    at.chain.hops.push(exchange);
    if (body) at.body = body;
    else delete at.body;
    const failure = errorOf(entry._chainError) ?? exchange.error;
    at.chain.end = entry._end === 'error' || failure ? 'error' : 'answer';
    if (failure) at.chain.error = failure;
    else delete at.chain.error;
    const location = header(exchange.headers, 'location') || text(object(entry.response)?.redirectURL);
    if (own === undefined && [301, 302, 303, 307, 308].includes(exchange.status ?? 0)) {
      const next = parseUrl(location, exchange.url);
      if (!next) continue;
      next.hash = '';
      open.set(next.href, at);
    }
  }
  return chains;
}
