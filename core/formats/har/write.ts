/** HTTP Archive 1.2: the HTTP part of evidence out. */
import type { Chain, Evidence, Exchange, Header } from '#core/facts/evidence';
import { headerOf, type Har, type HarEntry, type NameValue } from './archive';

const MISSING = -1;
const ms = (n: number | undefined): number => n ?? MISSING;
const pairs = (headers: readonly Header[]): NameValue[] => headers.map(([name, value]) => ({ name, value }));
const VERSIONS: Record<string, string> = { '1.1': 'HTTP/1.1', '2': 'HTTP/2' };

/** Times of an exchange as the format splits them; what was not measured is -1. */
function timingsOf({ resolve, connect, tls, firstByte, total }: Exchange['timing']): HarEntry['timings'] {
  const known = (resolve ?? 0) + (connect ?? 0) + (tls ?? 0);
  const wait = firstByte ?? 0;
  return {
    blocked: MISSING,
    dns: ms(resolve),
    // "connect" holds the TLS handshake as well (HAR 1.2, timings)
    connect: connect === undefined ? MISSING : connect + (tls ?? 0),
    send: 0,
    wait,
    receive: Math.max(0, total - known - wait),
    ssl: ms(tls),
  };
}

function requestOf({ method, url }: Exchange, httpVersion: string): HarEntry['request'] {
  const { host, searchParams } = new URL(url);
  return {
    method,
    url,
    httpVersion,
    cookies: [],
    headers: [{ name: 'Host', value: host }],
    queryString: [...searchParams].map(([name, value]) => ({ name, value })),
    headersSize: MISSING,
    bodySize: 0,
  };
}

function responseOf({ status, reason, bytes, headers }: Exchange, httpVersion: string): HarEntry['response'] {
  return {
    status: status ?? 0,
    statusText: reason ?? '',
    httpVersion,
    cookies: [],
    headers: pairs(headers),
    content: {
      size: bytes?.decoded ?? 0,
      ...(bytes ? { compression: bytes.decoded - bytes.encoded } : {}),
      mimeType: headerOf(headers, 'content-type') || 'x-unknown',
    },
    redirectURL: headerOf(headers, 'location'),
    headersSize: MISSING,
    bodySize: bytes?.encoded ?? MISSING,
  };
}

/** The fields of our own, with which the archive is read back as it was. */
function ownFields(exchange: Exchange, chain: Chain, number: number) {
  const isLast = exchange === chain.hops.at(-1);
  return {
    _chain: number,
    ...(isLast ? { _end: chain.end } : {}),
    ...(isLast && chain.error ? { _chainError: chain.error } : {}),
    ...(exchange.error ? { _error: exchange.error } : {}),
    ...(exchange.cut ? { _cut: true } : {}),
    _timing: exchange.timing,
  };
}

/** @param number which chain of the evidence it is */
function entryOf(exchange: Exchange, chain: Chain, number: number, startedDateTime: string): HarEntry {
  const httpVersion = VERSIONS[exchange.httpVersion ?? ''] ?? 'HTTP/1.1';
  const timings = timingsOf(exchange.timing);
  const { dns, connect, send, wait, receive } = timings;
  const at = exchange.address ? /^\[?([^\]]*?)\]?:(\d+)$/.exec(exchange.address) : null;
  return {
    startedDateTime,
    time: [dns, connect, send, wait, receive].reduce((a, b) => a + Math.max(0, b), 0),
    request: requestOf(exchange, httpVersion),
    response: responseOf(exchange, httpVersion),
    cache: {},
    timings,
    ...(at ? { serverIPAddress: at[1], connection: at[2] } : {}),
    ...ownFields(exchange, chain, number),
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
        chain.hops.map((hop) => ({
          ...entryOf(hop, chain, number, evidence.startedAt),
          ...(pageOf.has(chain) ? { pageref: pageOf.get(chain) } : {}),
        })),
      ),
      comment: `Evidence of ${evidence.target.url}, collected ${evidence.startedAt}`,
    },
  };
}
