/**
 * The way into a place that is not open to everybody. What is secret here goes on the wire to the site's own
 * origins (scheme, host and port) and nowhere else.
 */
import { parseUrl } from '#core/extract/address';
import type { AccessKind } from '#core/facts/evidence';

export type Access =
  | { kind: 'open' }
  | { kind: 'addresses' }
  | { kind: 'credentials'; user: string; password: string; origins: readonly string[] }
  /** A query parameter or cookie that opens a place or passes a holding page. */
  | { kind: 'parameter' | 'cookie'; name: string; value: string; origins: readonly string[] };

export const kindOf = (w: Access | undefined): AccessKind => w?.kind ?? 'open';

/** Path and headers of a request, with the key where the host is one that has the door. */
export function openDoor(
  access: Access | undefined,
  url: URL,
  headers: Record<string, string>,
): { path: string; headers: Record<string, string> } {
  const path = url.pathname + url.search;
  if (!access || !('origins' in access) || !access.origins.includes(url.origin)) return { path, headers };
  if (access.kind === 'credentials')
    return {
      path,
      headers: {
        ...headers,
        authorization: `Basic ${Buffer.from(`${access.user}:${access.password}`).toString('base64')}`,
      },
    };
  if (access.kind === 'cookie') {
    const own = headers.cookie ? `${headers.cookie}; ` : '';
    return { path, headers: { ...headers, cookie: `${own}${access.name}=${access.value}` } };
  }
  const pair = `${encodeURIComponent(access.name)}=${encodeURIComponent(access.value)}`;
  return { path: `${path}${url.search ? '&' : '?'}${pair}`, headers };
}

/**
 * The brief's way past a holding page as a way in: `?name=value`, `cookie: name=value`, or a full address
 * with a query.
 * @returns where to ask and with what; undefined when nothing is said or it cannot be read
 */
export function passOf(
  text: string | undefined,
  origin: string,
  hosts: readonly string[],
): { url: string; access: Access } | undefined {
  if (!text) return undefined;
  const origins = [...new Set([origin, ...hosts.map((h) => `https://${h}`)])];
  const cookie = /^cookie:\s*([^=;\s]+)=([^;]*)$/i.exec(text.trim());
  if (cookie && !isCookieValue(cookie[2]!.trim())) return undefined;
  if (cookie)
    return {
      url: `${origin}/`,
      access: { kind: 'cookie', name: cookie[1]!, value: cookie[2]!.trim(), origins },
    };
  const url = parseUrl(text.trim(), `${origin}/`);
  if (!url) return undefined;
  const [name, value] = [...url.searchParams][0] ?? [];
  if (name === undefined || !/^https?:$/.test(url.protocol)) return undefined;
  url.searchParams.delete(name);
  return { url: url.href, access: { kind: 'parameter', name, value: value!, origins } };
}

/** Whether something can be sent as the value of a header as it stands (RFC 9110 5.5). */
const isHeaderValue = (text: string): boolean => /^[\x20-\x7e]*$/.test(text);
/** RFC 6265 4.1.1, cookie-name: a token. */
const isToken = (text: string): boolean => /^[!#$%&'*+\-.^_`|~0-9A-Za-z]+$/.test(text);
/** RFC 6265 4.1.1, cookie-value, in quotes or without. */
const isCookieValue = (text: string): boolean =>
  /^(?:"[\x21\x23-\x2b\x2d-\x3a\x3c-\x5b\x5d-\x7e]*"|[\x21\x23-\x2b\x2d-\x3a\x3c-\x5b\x5d-\x7e]*)$/.test(
    text,
  );
/** A shorter secret would be blanked out of half of what a site says. */
const SHORTEST_SECRET = 4;

/** What is wrong with a way in, in a sentence; undefined when it can be used. */
export function accessFault(access: Access): string | undefined {
  if (!('origins' in access)) return undefined;
  const { kind } = access;
  const secret = kind === 'credentials' ? access.password : access.value;
  if (secret.length < SHORTEST_SECRET)
    return `The secret has at least ${SHORTEST_SECRET} characters: a shorter one could not be kept out of the evidence.`;
  if (kind === 'credentials')
    return /[:\0-\x1f\x7f]/.test(access.user) || /[\0-\x1f\x7f]/.test(secret)
      ? 'A user name has no colon, and neither it nor the password has control characters (RFC 7617 2).'
      : undefined;
  if (kind === 'cookie' && !isToken(access.name))
    return 'The name of a cookie has letters, digits and a few signs only (RFC 6265 4.1.1).';
  if (kind === 'cookie' && !(isCookieValue(secret) && isHeaderValue(secret)))
    return 'The value of a cookie has no spaces, commas, semicolons, backslashes or letters beyond ASCII (RFC 6265 4.1.1); write them percent-encoded.';
  return undefined;
}

const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\/-]/g, '\\$&');
const ALNUM = /[A-Za-z0-9]/;

/** Every spelling in which a secret could come back: as it is, as sent, percent-encoded either way. */
function spellings(value: string): string[] {
  const encoded = encodeURIComponent(Buffer.from(value).toString());
  return [value, encoded, encoded.replaceAll('%20', '+'), JSON.stringify(value).slice(1, -1)];
}

/** What finds the secrets of a way in within a text, in any case; undefined where there are none. */
export function secretsOf(access: Access | undefined): RegExp[] {
  if (!access || !('origins' in access)) return [];
  const values =
    access.kind === 'credentials'
      ? [access.password, Buffer.from(`${access.user}:${access.password}`).toString('base64')]
      : [access.value];
  return values
    .filter((v) => v.length >= SHORTEST_SECRET)
    .map((value) => {
      const forms = [...new Set(spellings(value))].sort((a, b) => b.length - a.length).map(escaped);
      // a word of its own: a password "name" is not to blank "surname"
      const before = ALNUM.test(value[0]!) ? '(?<![A-Za-z0-9])' : '';
      const after = ALNUM.test(value.at(-1)!) ? '(?![A-Za-z0-9])' : '';
      return new RegExp(`${before}(?:${forms.join('|')})${after}`, 'gi');
    });
}

/**
 * Blanks the secrets in everything that was collected: a site may echo them in links, redirects and cookies.
 * Texts only are changed; names of fields, numbers and whatever else is there stay.
 */
export function withoutSecrets<T>(value: T, secrets: readonly RegExp[]): T {
  if (!secrets.length) return value;
  const clean = (held: unknown): unknown => {
    if (typeof held === 'string') return secrets.reduce((text, secret) => text.replace(secret, '…'), held);
    if (Array.isArray(held)) return held.map(clean);
    if (typeof held !== 'object' || held === null) return held;
    return Object.fromEntries(Object.entries(held).map(([name, inner]) => [name, clean(inner)]));
  };
  return clean(value) as T;
}
