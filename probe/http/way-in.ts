/**
 * The way into a place that is not open to everybody. What is secret here goes on the wire to the site's own
 * hosts and nowhere else.
 */
import { parseUrl } from '#core/extract/address';
import type { WayInKind } from '#core/facts/evidence';

export type WayIn =
  | { kind: 'open' }
  | { kind: 'addresses' }
  | { kind: 'credentials'; user: string; password: string; hosts: readonly string[] }
  /** A query parameter or cookie that opens a place or passes a holding page. */
  | { kind: 'parameter' | 'cookie'; name: string; value: string; hosts: readonly string[] };

export const kindOf = (w: WayIn | undefined): WayInKind => w?.kind ?? 'open';

/** Path and headers of a request, with the key where the host is one that has the door. */
export function openDoor(
  wayIn: WayIn | undefined,
  url: URL,
  headers: Record<string, string>,
): { path: string; headers: Record<string, string> } {
  const path = url.pathname + url.search;
  if (!wayIn || !('hosts' in wayIn) || !wayIn.hosts.includes(url.hostname)) return { path, headers };
  if (wayIn.kind === 'credentials')
    return {
      path,
      headers: {
        ...headers,
        authorization: `Basic ${Buffer.from(`${wayIn.user}:${wayIn.password}`).toString('base64')}`,
      },
    };
  if (wayIn.kind === 'cookie')
    return { path, headers: { ...headers, cookie: `${wayIn.name}=${wayIn.value}` } };
  const pair = `${encodeURIComponent(wayIn.name)}=${encodeURIComponent(wayIn.value)}`;
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
): { url: string; wayIn: WayIn } | undefined {
  if (!text) return undefined;
  const cookie = /^cookie:\s*([^=;\s]+)=([^;]*)$/i.exec(text.trim());
  if (cookie)
    return {
      url: `${origin}/`,
      wayIn: { kind: 'cookie', name: cookie[1]!, value: cookie[2]!.trim(), hosts },
    };
  const url = parseUrl(text.trim(), `${origin}/`);
  if (!url) return undefined;
  const [name, value] = [...url.searchParams][0] ?? [];
  if (name === undefined || !/^https?:$/.test(url.protocol)) return undefined;
  url.searchParams.delete(name);
  return { url: url.href, wayIn: { kind: 'parameter', name, value: value!, hosts } };
}

/** Every spelling in which the secret could come back: as it is, as sent, percent-encoded, as base64. */
export function secretsOf(wayIn: WayIn | undefined): string[] {
  if (!wayIn || !('hosts' in wayIn)) return [];
  const values =
    wayIn.kind === 'credentials'
      ? [wayIn.password, Buffer.from(`${wayIn.user}:${wayIn.password}`).toString('base64')]
      : [wayIn.value];
  return [...new Set(values.flatMap((v) => [v, encodeURIComponent(v), JSON.stringify(v).slice(1, -1)]))]
    .filter((v) => v.length >= 4)
    .sort((a, b) => b.length - a.length);
}

/**
 * Blanks the secrets in everything that was collected: a site may echo them in links, redirects and cookies.
 */
export function withoutSecrets<T>(value: T, secrets: readonly string[]): T {
  if (!secrets.length) return value;
  const text = JSON.stringify(value);
  if (!secrets.some((s) => text.includes(s))) return value;
  return JSON.parse(secrets.reduce((t, s) => t.replaceAll(s, '…'), text)) as T;
}
