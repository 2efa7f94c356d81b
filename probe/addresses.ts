/** Which addresses may be dialled, and the map that sends some of them elsewhere. */
import ipaddr from 'ipaddr.js';
import { rangeOf } from '#core/facts/address-ranges';

/**
 * Addresses at which platforms tell their machines secrets, and which look like any other (from memory; an
 * installation adds its own by ARMBAND_FORBIDDEN).
 */
const METADATA = ['168.63.129.16/32', '100.100.100.200/32', '192.0.0.192/32', '192.80.8.124/32'];

/**
 * Why an address may not be dialled; null when it may. IPv4-mapped addresses are unwrapped first.
 * Only global unicast passes (RFC 6890 and the registries it names); IPv6 only from 2000::/3.
 */
export function forbidden(address: string, more: readonly string[] = []): string | null {
  if (!ipaddr.isValid(address)) return 'no address';
  const parsed = ipaddr.process(address);
  if (rangeOf(parsed.toString(), [...METADATA, ...more])) return 'an address of the platform itself';
  const range = parsed.range();
  if (range !== 'unicast') return `a ${RANGE_WORDS[range] ?? range} address`;
  if (parsed.kind() === 'ipv6' && (parsed.toByteArray()[0]! & 0xe0) !== 0x20) return 'no global address';
  return null;
}

const RANGE_WORDS: Record<string, string> = {
  private: 'private',
  loopback: 'loopback',
  linkLocal: 'link-local',
  carrierGradeNat: 'carrier-grade',
  multicast: 'multicast',
  uniqueLocal: 'private',
  unspecified: 'unspecified',
  broadcast: 'broadcast',
  reserved: 'reserved or documentation',
  benchmarking: 'benchmarking',
  '6to4': '6to4',
  teredo: 'Teredo',
};

export interface Destination {
  address: string;
  port: number;
}

/** Sends connections for a host or address, with or without a port, to another address and port. */
export class AddressMap {
  private readonly entries = new Map<string, { address: string; port?: number }>();

  /**
   * @param rules as written on the command line, "FROM=TO".
   * @throws RangeError for a rule that cannot be read
   */
  constructor(rules: readonly string[] = []) {
    for (const rule of rules) {
      const at = rule.indexOf('=');
      if (at < 1) throw new RangeError(`--map takes FROM=TO, not “${rule}”`);
      const from = splitPort(rule.slice(0, at));
      const to = splitPort(rule.slice(at + 1));
      if (!from || !to || !ipaddr.isValid(to.host))
        throw new RangeError(`--map: “${rule}” does not lead to an address and port`);
      this.entries.set(key(from.host, from.port), { address: to.host, port: to.port });
    }
  }

  /** Where a connection goes instead, or undefined. A rule with a port wins over one without. */
  find(hostOrAddress: string, port: number): Destination | undefined {
    const hit = this.entries.get(key(hostOrAddress, port)) ?? this.entries.get(key(hostOrAddress));
    return hit && { address: hit.address, port: hit.port ?? port };
  }
}

/** Reading an address takes long beside a look at its letters, and each connection asks. */
const MAY_BE_ADDRESS = /^[\da-fx.]+$|:/i;

function key(host: string, port?: number): string {
  const plain =
    MAY_BE_ADDRESS.test(host) && ipaddr.isValid(host)
      ? ipaddr.process(host).toString()
      : host.toLowerCase().replace(/\.$/, '');
  return port === undefined ? plain : `${plain}|${port}`;
}

/** Splits "host", "host:port", "::1" or "[::1]:53". */
export function splitPort(text: string): { host: string; port?: number } | null {
  const bracket = /^\[([^\]]+)\](?::(\d{1,5}))?$/.exec(text);
  const plain =
    bracket ?? (text.split(':').length > 2 ? [text, text, undefined] : /^([^:]+)(?::(\d{1,5}))?$/.exec(text));
  if (!plain) return null;
  const port = plain[2] === undefined ? undefined : Number(plain[2]);
  return port !== undefined && (port < 1 || port > 65535) ? null : { host: plain[1]!, port };
}
