/** Looks at a launch from outside: every server of the zone, the zone above, each resolver, and every host. */
import { finalStatus, headerValues, lastAnswer, type Chain, type DnsAnswer } from '#core/facts/evidence';
import { hostOf } from '#core/extract/address';
import { plainName } from '#core/checks/kit/dns-answers';
import { coversHost } from '#core/facts/certificate';
import type { Brief } from '#core/facts/brief';
import type { HostProfile } from '#core/facts/host-profile';
import { showsOf } from '#core/launch/landing';
import type { SeenAddress, SeenAnswer, SeenHost, SeenServer, WatchGoal, WatchSeen } from '#core/launch/watch';
import { isHtml } from './crawl';
import { Dialer, type DialerOptions } from './dialer';
import { delegationOf, serversIn } from './dns/authority';
import { extractHere, type Extract } from './extractor';
import { HttpClient } from './http/client';
import type { HostGate } from './http/host-gate';
import { probeAddress, type TrustStore } from './tls';

export interface WatchOptions extends DialerOptions {
  goal: WatchGoal;
  zone: string;
  brief: Brief;
  profile?: HostProfile;
  store: TrustStore;
  agent: string;
  extract?: Extract;
  gate?: HostGate;
  /** Each is asked for itself; hosts are reached through the first. */
  resolvers: readonly string[];
  signal?: AbortSignal;
}

const MOST_BYTES = 2 * 1024 * 1024;
const WEB_PORTS = [80, 443];

function seenAnswer({ name, type, records, rcode, error }: DnsAnswer): SeenAnswer {
  const own = records.filter((r) => plainName(r.name) === plainName(name) && r.type === type);
  const isUsable = rcode === 'NOERROR' || rcode === 'NXDOMAIN';
  return {
    name: plainName(name),
    type,
    values: own.map((r) => r.value),
    ttl: Math.max(0, ...own.map((r) => r.ttl)),
    ...(isUsable ? {} : { error: rcode === 'NONE' ? (error ?? 'no answer') : rcode }),
  };
}

/** What is asked for of the zone: the records that change. */
const questions = ({ lines }: WatchGoal): Question[] => {
  const all = lines.flatMap(({ name, type }): Question[] => [
    [name, type],
    // an operator may answer with the addresses of an alias instead
    ...(type === 'CNAME' ? [[name, 'A'] as Question] : []),
  ]);
  return all.filter(([name, type], i) => all.findIndex(([n, t]) => n === name && t === type) === i);
};

type Question = [name: string, type: string];

async function askServer(
  dialer: Dialer,
  { name, addresses }: { name: string; addresses: readonly string[] },
  asked: readonly Question[],
): Promise<SeenServer> {
  const [address] = addresses;
  const answers = address
    ? await Promise.all(
        asked.map(async ([n, type]) => seenAnswer(await dialer.askAuthority(name, address, n, type))),
      )
    : asked.map(([n, type]) => ({
        name: n,
        type,
        values: [],
        ttl: 0,
        error: 'the server’s name has no address',
      }));
  return { kind: 'authority', name, answers };
}

/** Asks name servers by their names, whether or not anything leads to them yet. */
export async function askNamedServers(
  options: DialerOptions,
  servers: readonly string[],
  asked: readonly Question[],
): Promise<SeenServer[]> {
  const dialer = new Dialer(options);
  return Promise.all(
    servers.map(async (name) => {
      const addresses = await dialer.resolve(plainName(name)).catch(() => []);
      return askServer(dialer, { name: plainName(name), addresses }, asked);
    }),
  );
}

async function askServers(dialer: Dialer, { goal, zone }: WatchOptions): Promise<SeenServer[]> {
  const { referrals, nameServers } = await delegationOf(dialer, zone);
  const above = referrals.map((r): SeenServer => {
    const names = serversIn(r, zone);
    const ttl = Math.max(0, ...[...r.records, ...(r.authority ?? [])].map((x) => x.ttl));
    const answer = { name: zone, type: 'NS', values: names, ttl };
    const failed = names.length ? {} : { error: r.error ?? r.rcode };
    return { kind: 'zone above', name: r.serverName ?? r.server, answers: [{ ...answer, ...failed }] };
  });
  // where they move, the new ones have to have it; else those of today
  const named = goal.nameServers.length
    ? await Promise.all(
        goal.nameServers.map(async (name) => ({
          name: plainName(name),
          addresses: await dialer.resolve(plainName(name)).catch(() => []),
        })),
      )
    : nameServers;
  const own = await Promise.all(named.map((server) => askServer(dialer, server, questions(goal))));
  return [...above, ...own];
}

async function askResolver(options: WatchOptions, resolver: string): Promise<SeenServer> {
  const dialer = new Dialer({ ...options, resolvers: [resolver] });
  const answers = await Promise.all(
    questions(options.goal).map(async ([name, type]) => seenAnswer(await dialer.lookup(name, type))),
  );
  return { kind: 'resolver', name: resolver, answers };
}

const addressIn = (shown: string | undefined): string | undefined =>
  shown?.replace(/:\d+$/, '').replace(/^\[|\]$/g, '');

/** What a host shows, by a chain of requests that was followed. */
async function shownBy(
  { chain, body }: { chain: Chain; body?: Buffer },
  options: WatchOptions,
  oldAddresses: readonly string[],
): Promise<Pick<SeenHost, 'shows' | 'end' | 'title' | 'error'>> {
  const last = lastAnswer(chain);
  const type = headerValues(last, 'content-type')[0];
  const isPage = body && last && isHtml(type, body);
  const read = isPage
    ? await Promise.resolve((options.extract ?? extractHere)(body, type, last.url)).catch(() => undefined)
    : undefined;
  const shows = showsOf(
    {
      ...(read ? { page: { url: last!.url, facts: read.facts } } : {}),
      status: chain.end === 'answer' ? finalStatus(chain) : undefined,
      address: addressIn(last?.address),
    },
    { brief: options.brief, profile: options.profile, oldAddresses },
  );
  const title = read?.facts.titles[0]?.text;
  return {
    shows,
    ...(last ? { end: last.url } : {}),
    ...(title ? { title: title.slice(0, 120) } : {}),
    ...(chain.error ? { error: chain.error.message } : {}),
  };
}

const addresses = (goal: WatchGoal, which: 'before' | 'after'): string[] =>
  goal.lines.filter((l) => l.type === 'A' || l.type === 'AAAA').flatMap((l) => l[which]);

/** Addresses that the site leaves. */
const leftBehind = (goal: WatchGoal): string[] =>
  addresses(goal, 'before').filter((a) => !addresses(goal, 'after').includes(a));

/** Where the names are to lead: the wanted addresses, or those that a wanted alias has. */
async function newAddress(dialer: Dialer, goal: WatchGoal): Promise<string | undefined> {
  const [direct] = addresses(goal, 'after');
  if (direct) return direct;
  const alias = goal.lines.find((l) => l.type === 'CNAME')?.after[0];
  return alias ? (await dialer.resolve(alias).catch(() => []))[0] : undefined;
}

/** What one address shows for a host, asked by itself. */
async function shownAt(
  client: HttpClient,
  options: WatchOptions,
  host: string,
  address: string,
): Promise<Pick<SeenHost, 'shows' | 'end' | 'title' | 'error'>> {
  const secure = await client.exchange(`https://${host}/`, 'GET', {}, { address });
  // a host may know the name before it has a certificate for it
  const { exchange, body } = secure.exchange.error
    ? await client.exchange(`http://${host}/`, 'GET', {}, { address })
    : secure;
  const to = hostOf(headerValues(exchange, 'location')[0] ?? '');
  const chain: Chain = {
    start: exchange.url,
    hops: [exchange],
    end: exchange.error ? 'error' : 'answer',
    ...(exchange.error ? { error: exchange.error } : {}),
  };
  const shown = await shownBy({ chain, body }, options, leftBehind(options.goal));
  // who sends a visitor on to another name of the site knows it
  const knows = to !== undefined && options.goal.hosts.includes(to) && shown.shows !== 'old site';
  return { ...shown, ...(knows ? { shows: 'site' as const } : {}) };
}

/** So many addresses of a host are asked. */
const ADDRESSES = 8;

/** One address of a host: its certificate, and what it answers. */
async function askAddress(
  dialer: Dialer,
  client: HttpClient,
  options: WatchOptions,
  host: string,
  address: string,
): Promise<SeenAddress> {
  const [tls, { shows, error }] = await Promise.all([
    probeAddress(dialer, options.store, host, address, 443),
    shownAt(client, options, host, address),
  ]);
  const isShaken = tls.fingerprint256 !== undefined;
  const isNamed = coversHost(tls.names, host);
  const isOutOfReach = address.includes(':') && tls.error?.code === 'no-address';
  const wrong = tls.trusted
    ? `the certificate is only for ${tls.names.slice(0, 3).join(', ') || 'no name'}`
    : (tls.trustError ?? tls.error?.message ?? 'not trusted');
  return {
    address,
    shows,
    ...(error ? { error } : {}),
    ...(isShaken ? { isCovered: tls.trusted && isNamed } : {}),
    ...(tls.trusted && isNamed ? {} : { tlsError: wrong }),
    ...(isOutOfReach ? { isOutOfReach } : {}),
  };
}

async function askHosts(
  dialer: Dialer,
  client: HttpClient,
  options: WatchOptions,
): Promise<Pick<WatchSeen, 'hosts' | 'atNew'>> {
  const { goal } = options;
  const old = leftBehind(goal);
  const isOwn = (host: string): boolean => goal.hosts.includes(host);
  const hosts = await Promise.all(
    goal.hosts.map(async (host): Promise<SeenHost> => {
      const found = await dialer.resolve(host).catch(() => []);
      const [seen, secure] = await Promise.all([
        Promise.all(found.slice(0, ADDRESSES).map((a) => askAddress(dialer, client, options, host, a))),
        client.follow(`https://${host}/`, { own: isOwn }),
      ]);
      const met =
        secure.chain.end === 'answer' ? secure : await client.follow(`http://${host}/`, { own: isOwn });
      return { host, ...(await shownBy(met, options, old)), addresses: seen };
    }),
  );
  const atNew = await askNew(dialer, client, options);
  return { hosts, ...(atNew ? { atNew } : {}) };
}

/** The address that the site leaves for, asked for the preferred name; nothing where none is wanted. */
async function askNew(
  dialer: Dialer,
  client: HttpClient,
  options: WatchOptions,
): Promise<WatchSeen['atNew']> {
  const { goal } = options;
  const address = await newAddress(dialer, goal);
  const [preferred] = goal.hosts;
  if (!address || !preferred) return undefined;
  return {
    host: preferred,
    address,
    ...(await shownAt(client, options, preferred, address)),
  };
}

/** What the new address shows for the preferred name, whatever the names lead to. Never throws for what a network does. */
export async function askNewAddress(options: WatchOptions): Promise<WatchSeen['atNew']> {
  const dialer = new Dialer({ ...options, ports: WEB_PORTS });
  const client = clientOf(dialer, options);
  try {
    return await askNew(dialer, client, options);
  } finally {
    await client.close();
  }
}

const clientOf = (dialer: Dialer, options: WatchOptions): HttpClient =>
  new HttpClient(dialer, options.store, {
    agent: options.agent,
    timeoutMs: dialer.timeoutMs,
    maxBytes: MOST_BYTES,
    maxRedirects: 10,
    connections: 2,
    retryPauseMs: 0,
    signal: options.signal,
    gate: options.gate,
  });

/** The addresses of what wanted aliases lead to. */
async function aliasesOf(dialer: Dialer, { lines }: WatchGoal): Promise<Record<string, string[]>> {
  const targets = lines.flatMap((l) => (l.type === 'CNAME' ? l.after : [])).map(plainName);
  const found = targets.map(async (name) => [name, await dialer.resolve(name).catch(() => [])] as const);
  return Object.fromEntries(await Promise.all(found));
}

/** The MX of the zone, as its first server that answers has it. */
async function mailOf(
  dialer: Dialer,
  servers: readonly SeenServer[],
  zone: string,
): Promise<string[] | undefined> {
  for (const { kind, name } of servers) {
    if (kind !== 'authority') continue;
    const [address] = await dialer.resolve(name).catch(() => []);
    const answer = address ? seenAnswer(await dialer.askAuthority(name, address, zone, 'MX')) : undefined;
    if (answer && !answer.error) return answer.values;
  }
  return undefined;
}

const written = ({ address, port }: Dialer['resolvers'][number]): string =>
  address.includes(':') ? `[${address}]:${port}` : `${address}:${port}`;

/** One look. Never throws for what a network does. @param at milliseconds */
export async function lookAround(options: WatchOptions, at: number): Promise<WatchSeen> {
  const dialer = new Dialer({ ...options, resolvers: options.resolvers.slice(0, 1), ports: WEB_PORTS });
  const client = clientOf(dialer, options);
  try {
    // the system's own, where none are named
    const asked = options.resolvers.length ? options.resolvers : dialer.resolvers.map(written);
    const [servers, resolvers, hosts] = await Promise.all([
      askServers(dialer, options),
      Promise.all(asked.map((r) => askResolver(options, r))),
      askHosts(dialer, client, options),
    ]);
    const aliases = await aliasesOf(dialer, options.goal);
    const mail = options.goal.mail.length ? await mailOf(dialer, servers, options.zone) : undefined;
    return { at, servers: [...servers, ...resolvers], ...hosts, aliases, ...(mail ? { mail } : {}) };
  } finally {
    await client.close();
  }
}
