/** Where a request comes from, also through proxies that are trusted to say so. */
import type { IncomingMessage } from 'node:http';
import ipaddr from 'ipaddr.js';
import { rangeOf } from '#core/facts/address-ranges';

const plain = (address: string): string => address.replace(/^::ffff:(?=\d)/, '').replace(/^\[|\]$/g, '');

/** ARMBAND_TRUSTED_PROXIES: addresses and ranges of one's own proxies, a comma list. */
const trusted = (): string[] =>
  (process.env.ARMBAND_TRUSTED_PROXIES ?? '')
    .split(',')
    .map((s) => s.trim())
    .filter(Boolean)
    .map((s) => (s.includes('/') ? s : `${s}/${s.includes(':') ? 128 : 32}`));

/**
 * The address that the nearest trusted proxy was called from. What the caller wrote into X-Forwarded-For stands
 * to the left of that, and proves nothing.
 */
export function clientAddress(req: Pick<IncomingMessage, 'headers' | 'socket'>): string {
  const proxies = trusted();
  let address = plain(req.socket.remoteAddress ?? 'unknown');
  const forwarded = [req.headers['x-forwarded-for'] ?? '']
    .flat()
    .join(',')
    .split(',')
    .map((s) => s.trim());
  while (forwarded.length && rangeOf(address, proxies)) {
    const before = plain(forwarded.pop()!);
    if (!before) break;
    address = before;
  }
  return address;
}

/** Bits of an IPv6 address that one subscriber has at least (RFC 6177; common practice). */
const SUBSCRIBER_BITS = 64;

/** What one caller has of addresses: an IPv4 address, or the /64 that an IPv6 address lies in. */
export function networkOf(address: string): string {
  if (!ipaddr.isValid(address)) return address;
  const parsed = ipaddr.process(address);
  if (parsed.kind() === 'ipv4') return parsed.toString();
  return `${ipaddr.IPv6.networkAddressFromCIDR(`${parsed.toString()}/${SUBSCRIBER_BITS}`).toString()}/${SUBSCRIBER_BITS}`;
}
