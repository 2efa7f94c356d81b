/** Addresses and host names by the URL standard. */
import { getDomain } from 'tldts';

/**
 * An address by the URL standard, or undefined. Not `URL.canParse`: in Node 20 its compiled form takes
 * Latin-1 letters for broken UTF-8
 * and, after some thousand calls, refuses addresses with an umlaut.
 */
export function parseUrl(text: string, base?: string): URL | undefined {
  try {
    return withoutDotSegments(new URL(text, base));
  } catch {
    return undefined;
  }
}

const DOT_SEGMENT = /\/(?:\.|%2e){1,2}(?:\/|$)/i;
const ONE_DOT = /^(?:\.|%2e)$/i;
const TWO_DOTS = /^(?:\.|%2e){2}$/i;

/**
 * Node 20 overlooks dot segments that follow an empty segment and a name that begins with a dot ("//.x/./");
 * the standard takes them out.
 */
function withoutDotSegments(url: URL): URL {
  // hardly any address has one, so the cheap question comes first
  const { href } = url;
  if (
    (!href.includes('/.') && !href.includes('/%2')) ||
    !url.pathname.startsWith('/') ||
    !DOT_SEGMENT.test(url.pathname)
  )
    return url;
  const kept: string[] = [];
  const segments = url.pathname.slice(1).split('/');
  for (const [i, segment] of segments.entries()) {
    const dots = TWO_DOTS.test(segment) ? 2 : ONE_DOT.test(segment) ? 1 : 0;
    if (dots === 2) kept.pop();
    if (!dots) kept.push(segment);
    else if (i === segments.length - 1) kept.push('');
  }
  url.pathname = `/${kept.join('/')}`;
  return url;
}

/** An address as people type it, with https where they left the scheme out. */
export function withScheme(text: string): string {
  const t = text.trim();
  return t && !/^[a-z]+:\/\//i.test(t) ? `https://${t}` : t;
}

/** The A-label form of a host name, lower case, without a final dot; undefined when it is none. */
export function asciiHost(host: string): string | undefined {
  const h = host.trim().replace(/\.$/, '');
  if (!h || /[\s/?#@\\:]/.test(h)) return undefined;
  try {
    return new URL(`http://${h}/`).hostname;
  } catch {
    return undefined;
  }
}

/**
 * An address that the URL standard leaves as it stands: https or http, plain host, plain path without dot
 * segments.
 */
const PLAIN =
  /^https?:\/\/(?:[a-z0-9-]+\.)+[a-z]+\/(?:[A-Za-z0-9_~-][A-Za-z0-9_.~-]*\/)*(?:[A-Za-z0-9_~-][A-Za-z0-9_.~-]*)?$/;
const PLAIN_PATH = /^\/(?:[A-Za-z0-9_~-][A-Za-z0-9_.~-]*\/)*(?:[A-Za-z0-9_~-][A-Za-z0-9_.~-]*)?$/;

/**
 * The absolute address of a reference by the URL standard; undefined when there is none.
 * Most references on a page are plain, and for those the same result is had without a parser.
 */
export function resolveAddress(reference: string, base: string): string | undefined {
  const hash = reference.indexOf('#');
  const path = hash < 0 ? reference : reference.slice(0, hash);
  if (!path.includes('xn--') && (hash < 0 || PLAIN_FRAGMENT.test(reference.slice(hash)))) {
    const rooted = PLAIN_PATH.test(path);
    const beside = !rooted && PLAIN_NAME.test(path);
    if (rooted || beside) {
      const folder = plainBase(base);
      if (folder) return (rooted ? folder.origin : folder.folder) + reference;
    } else if (PLAIN.test(path)) return reference;
  }
  return parseUrl(reference, base)?.href;
}

const PLAIN_NAME = /^(?:[A-Za-z0-9_~-][A-Za-z0-9_.~-]*\/)*[A-Za-z0-9_~-][A-Za-z0-9_.~-]*\/?$/;
const PLAIN_FRAGMENT = /^#[A-Za-z0-9_.~-]*$/;
let lastBase: { base: string; parts: { origin: string; folder: string } | undefined } | undefined;

/**
 * Origin and folder of a plain base address; the last one is remembered, since a page has hundreds of
 * references.
 */
function plainBase(base: string): { origin: string; folder: string } | undefined {
  if (lastBase?.base === base) return lastBase.parts;
  const end = base.indexOf('/', 8);
  const plain = end > 0 && !base.includes('xn--') && PLAIN.test(base);
  lastBase = {
    base,
    parts: plain
      ? { origin: base.slice(0, end), folder: base.slice(0, base.lastIndexOf('/') + 1) }
      : undefined,
  };
  return lastBase.parts;
}

/**
 * Path and query (with its mark; nothing where nothing follows it) of an http(s) address that is normalised
 * already.
 */
export function splitAddress(url: string): { path: string; query: string } {
  const start = url.indexOf('/', 8),
    mark = url.indexOf('?', start);
  return mark < 0
    ? { path: url.slice(start), query: '' }
    : { path: url.slice(start, mark), query: mark === url.length - 1 ? '' : url.slice(mark) };
}

/**
 * Normalises an http(s) address for comparing: by the URL standard, without fragment. Undefined for other
 * schemes and nonsense.
 */
export function normaliseUrl(url: string, base?: string): string | undefined {
  if (!url.includes('xn--') && PLAIN.test(url)) return url;
  const u = parseUrl(url, base);
  if (!u) return undefined;
  if (u.protocol !== 'http:' && u.protocol !== 'https:') return undefined;
  u.hash = '';
  u.username = '';
  u.password = '';
  return u.href;
}

/** Host of an address, as an A-label. */
export function hostOf(url: string): string | undefined {
  if (!url.includes('xn--') && PLAIN.test(url)) {
    const start = url.indexOf('//') + 2;
    return url.slice(start, url.indexOf('/', start));
  }
  return parseUrl(url)?.hostname;
}

/**
 * The registrable domain by the Public Suffix List (ICANN and private parts). Names under unknown top levels
 * follow the list's `*` rule.
 */
export function registrableDomain(host: string): string | null {
  return getDomain(host, { allowPrivateDomains: true });
}

/**
 * Whether an address lies inside a base address: same host (port included) and a path below the base's
 * folder.
 */
export function insideBase(url: string, base: string): boolean {
  const u = new URL(url);
  const b = new URL(base);
  if (u.host !== b.host) return false;
  const folder = b.pathname.endsWith('/') ? b.pathname : b.pathname.replace(/[^/]*$/, '');
  return u.pathname.startsWith(folder) || u.pathname + '/' === folder;
}

/** Percent-decoding that leaves a malformed text as it stands. */
export function decodeSafely(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text;
  }
}
