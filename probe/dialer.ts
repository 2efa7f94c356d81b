/**
 * The only door to a network: resolves, refuses forbidden addresses, pins the address it checked, and
 * connects.
 */
import net from 'node:net';
import { randomInt } from 'node:crypto';
import { getServers } from 'node:dns';
import type { DnsAnswer, DnsRecord } from '#core/facts/evidence';
import { AddressMap, forbidden, splitPort, type Destination } from './addresses';
import { ask, noAnswer } from './dns/client';
import { ProbeError } from './network-error';

export interface DialerOptions {
  /** "address:port" each; the system's when empty. */
  resolvers?: readonly string[];
  /** As written on the command line, or read already. */
  map?: readonly string[] | AddressMap;
  allowPrivate?: boolean;
  timeoutMs?: number;
  /** Ports that connections may be made to, beside those that the map names; any when left out. */
  ports?: readonly number[];
  /** Addresses and ranges that are never dialled, beside those that no address of the web can be. */
  forbidden?: readonly string[];
}

export interface Dialled {
  socket: net.Socket;
  address: string;
  timing: { resolve: number; connect: number };
}

/** A name server as it is asked, and as it stands in the evidence. */
interface AskedServer {
  at: Destination;
  label: string;
  role: DnsAnswer['role'];
  serverName?: string;
}

const sameName = (a: string, b: string): boolean =>
  a.toLowerCase().replace(/\.$/, '') === b.toLowerCase().replace(/\.$/, '');

/**
 * Where the aliases of an answer lead from a name. Records of names that the aliases do not lead to are not
 * ours to believe.
 */
function aliasEnd(name: string, records: readonly DnsRecord[]): string {
  let at = name;
  for (let step = 0; step < 9; step++) {
    const alias = records.find((r) => r.type === 'CNAME' && sameName(r.name, at))?.value;
    if (!alias) return at;
    at = alias;
  }
  throw new ProbeError('dns', `the aliases of ${name} do not come to an end`);
}

export class Dialer {
  readonly resolvers: Destination[];
  private readonly map: AddressMap;
  private readonly allowPrivate: boolean;
  private readonly ports?: ReadonlySet<number>;
  private readonly refused: readonly string[];
  readonly timeoutMs: number;
  /** Every answer got, in the order of asking; the same question is put once to each server. */
  readonly answers: DnsAnswer[] = [];
  private readonly asked = new Map<string, Promise<DnsAnswer>>();
  private readonly known = new Map<string, Promise<string[]>>();

  constructor(options: DialerOptions = {}) {
    const given = options.resolvers?.length ? options.resolvers : getServers();
    this.resolvers = given.map((text) => {
      const s = splitPort(text);
      if (!s) throw new RangeError(`“${text}” is no resolver: give ADDRESS:PORT`);
      return { address: s.host, port: s.port ?? 53 };
    });
    this.map = options.map instanceof AddressMap ? options.map : new AddressMap(options.map);
    this.allowPrivate = options.allowPrivate ?? false;
    if (options.ports) this.ports = new Set(options.ports);
    this.refused = options.forbidden ?? [];
    this.timeoutMs = options.timeoutMs ?? 15_000;
  }

  /** Where an address and port really lead. @throws ProbeError when it may not be dialled */
  destination(address: string, port: number): Destination {
    const mapped = this.map.find(address, port);
    if (mapped) return mapped;
    const why = this.allowPrivate ? null : forbidden(address, this.refused);
    if (why) throw new ProbeError('forbidden-address', `${address} is ${why} and is not dialled`);
    return { address, port };
  }

  /** Puts a question to a server, once. */
  private put(asked: AskedServer, name: string, type: string, unchecked = false): Promise<DnsAnswer> {
    const { at, label: server, role, serverName } = asked;
    const key = `${server} ${name.toLowerCase()} ${type} ${unchecked}`;
    const known = this.asked.get(key);
    if (known) return known;
    const options = {
      recursive: role === 'resolver',
      unchecked,
      timeoutMs: Math.min(this.timeoutMs, 5000),
      id: () => randomInt(65536),
      now: () => performance.now(),
    };
    const answer = ask(at, { name, type }, options).then((wire) => ({
      server,
      ...(serverName ? { serverName } : {}),
      role,
      name,
      type,
      ...wire,
      ...(unchecked ? { unchecked: true as const } : {}),
    }));
    this.asked.set(key, answer);
    void answer.then((a) => this.answers.push(a));
    return answer;
  }

  /**
   * Asks the resolvers in turn until one gives an answer.
   * @param unchecked with checking disabled: what an answer would be if nobody validated it
   */
  async lookup(name: string, type: string, unchecked = false): Promise<DnsAnswer> {
    let last: DnsAnswer | undefined;
    for (const r of this.resolvers) {
      const asked: AskedServer = { at: r, label: `${r.address}:${r.port}`, role: 'resolver' };
      last = await this.put(asked, name, type, unchecked);
      if (last.rcode === 'NOERROR' || last.rcode === 'NXDOMAIN') return last;
    }
    return last ?? { server: '', role: 'resolver', name, type, ...noAnswer('no resolver is set') };
  }

  /**
   * Asks one authoritative server by its address. A forbidden address is an answer of its own, not a fault of
   * ours.
   */
  async askAuthority(
    serverName: string,
    address: string,
    name: string,
    type: string,
    role: 'authority' | 'parent' | 'coming' = 'authority',
  ): Promise<DnsAnswer> {
    try {
      const at = this.destination(address, 53);
      return await this.put({ at, label: `${address}:53`, role, serverName }, name, type);
    } catch (error) {
      const answer: DnsAnswer = {
        server: `${address}:53`,
        serverName,
        role,
        name,
        type,
        ...noAnswer((error as Error).message),
      };
      this.answers.push(answer);
      return answer;
    }
  }

  /** Addresses of a name, IPv4 first, aliases followed. @throws ProbeError no-name, no-address or dns */
  resolve(host: string): Promise<string[]> {
    let found = this.known.get(host);
    if (!found) this.known.set(host, (found = this.resolveFresh(host)));
    return found;
  }

  private async resolveFresh(host: string): Promise<string[]> {
    let name = host;
    for (let step = 0; step < 9; step++) {
      const [a, aaaa] = await Promise.all([this.lookup(name, 'A'), this.lookup(name, 'AAAA')]);
      const end = aliasEnd(name, [...a.records, ...aaaa.records]);
      const addresses = [...a.records, ...aaaa.records]
        .filter((r) => (r.type === 'A' || r.type === 'AAAA') && sameName(r.name, end))
        .map((r) => r.value);
      if (addresses.length) return [...new Set(addresses)];
      if (a.rcode === 'NXDOMAIN') throw new ProbeError('no-name', `${name} does not exist (NXDOMAIN)`);
      if (a.rcode !== 'NOERROR' && aaaa.rcode !== 'NOERROR')
        throw new ProbeError(
          'dns',
          `the resolver gave no address of ${name}: ${a.rcode === 'NONE' ? a.error : a.rcode}`,
        );
      if (sameName(end, name)) throw new ProbeError('no-address', `${name} has no address`);
      name = end;
    }
    throw new ProbeError('dns', `the aliases of ${host} do not come to an end`);
  }

  /**
   * Connects to a host. Each address is checked before it is dialled, and the one checked is the one dialled.
   * @param only this address of the host and no other
   * @throws ProbeError
   */
  async connect(host: string, port: number, only?: string): Promise<Dialled> {
    const started = performance.now();
    if (this.ports && !this.allowPrivate && !this.ports.has(port) && !this.map.find(host, port))
      throw new ProbeError('forbidden-address', `port ${port} is none of the web’s, and is not dialled`);
    const bare = host.replace(/^\[|\]$/g, '');
    const mapped = only === undefined ? this.map.find(bare, port) : undefined;
    const targets = mapped
      ? [{ ...mapped, shown: `${mapped.address}:${mapped.port}` }]
      : this.allowed(only === undefined ? await this.addressesOf(bare) : [only], port);
    if (!targets.length) throw new ProbeError('no-address', `${host} has no address`);
    const resolved = performance.now();
    let last: unknown;
    for (const target of targets.slice(0, 4)) {
      try {
        const socket = await this.open(target);
        return {
          socket,
          address: target.shown,
          timing: { resolve: resolved - started, connect: performance.now() - resolved },
        };
      } catch (error) {
        last = error;
      }
    }
    throw last;
  }

  private async addressesOf(bare: string): Promise<string[]> {
    return net.isIP(bare) ? [bare] : this.resolve(bare);
  }

  /** Those of the addresses that may be dialled. @throws ProbeError with the first refusal where none may */
  private allowed(addresses: readonly string[], port: number): (Destination & { shown: string })[] {
    let refusal: ProbeError | undefined;
    const targets = addresses.flatMap((address) => {
      try {
        const shown = address.includes(':') ? `[${address}]:${port}` : `${address}:${port}`;
        return [{ ...this.destination(address, port), shown }];
      } catch (error) {
        refusal ??= error as ProbeError;
        return [];
      }
    });
    if (!targets.length && refusal) throw refusal;
    return targets;
  }

  private open(to: Destination): Promise<net.Socket> {
    return new Promise((resolve, reject) => {
      const socket = net.connect({ host: to.address, port: to.port, noDelay: true });
      const timer = setTimeout(
        () => socket.destroy(new ProbeError('timeout', 'no connection in time')),
        Math.min(this.timeoutMs, 10_000),
      );
      socket.once('connect', () => {
        clearTimeout(timer);
        socket.removeAllListeners('error');
        resolve(socket);
      });
      socket.once('error', (e) => {
        clearTimeout(timer);
        reject(e);
      });
    });
  }
}
