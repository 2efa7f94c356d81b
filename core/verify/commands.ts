/**
 * The commands that show a finding outside Armband: what was asked, of whom, and how, from the evidence. Secrets are
 * never part of them: how the auditor got in stands there as a placeholder.
 */
import { plainName } from '#core/checks/kit/dns-answers';
import { partsOf } from '#core/checks/engine/parts-of';
import type { Check } from '#core/checks/kit/check';
import { hostOf, parseUrl } from '#core/extract/address';
import { lastAnswer, type Chain, type DnsAnswer, type Evidence, type Exchange } from '#core/facts/evidence';
import { shellLine } from './shell';

export interface ShownBy {
  tool: 'dig' | 'openssl' | 'curl';
  /** To paste into a POSIX shell. */
  line: string;
}

/** More than these show no more. */
const MOST = 4;
/** Commands, each once, and no more than are of use. */
export const fewCommands = (lines: readonly string[]): string[] => [...new Set(lines)].slice(0, MOST);
const NONE: readonly string[] = [];

/** Which records a check goes by, where these are not the addresses of hosts. */
const TYPES: Record<string, readonly string[]> = {
  'domain.spf': ['TXT'],
  'domain.dmarc': ['TXT'],
  'domain.dkim': ['TXT'],
  'domain.mta-sts': ['TXT'],
  'domain.tls-reports': ['TXT'],
  'domain.mail-exchanger': ['MX'],
  'domain.mail-targets': ['MX', 'A', 'AAAA', 'CNAME'],
  'domain.no-mail-closed': ['MX', 'TXT'],
  'domain.mail-survives': ['MX', 'TXT'],
  'domain.caa': ['CAA'],
  'domain.signed': ['DS', 'DNSKEY'],
  'domain.ds-fits': ['DS', 'DNSKEY'],
  'domain.name-servers': ['NS'],
  'domain.delegation-agrees': ['NS'],
  'domain.soa': ['SOA'],
  'domain.no-apex-alias': ['CNAME'],
  'domain.no-dangling-alias': ['CNAME'],
  'verification.tokens-present': ['TXT', 'CNAME'],
};
const WEB_TYPES = ['A', 'AAAA', 'CNAME'];

/** The address and port of a server, as the evidence names it: “192.0.2.1:53”, “[2001:db8::1]:53”. */
function placeOf(text: string, port: string): { address: string; port: string } {
  const [, six, four, given] = /^(?:\[([^\]]+)\]|([^:]+))(?::(\d+))?$/.exec(text) ?? [];
  return { address: six ?? four ?? text, port: given ?? port };
}

/** What a DNS answer was the answer to. */
function digLine({ server, role, name, type, unchecked }: DnsAnswer): string | undefined {
  const { address, port } = placeOf(server, '53');
  return shellLine([
    'dig',
    `@${address}`,
    ...(port === '53' ? [] : ['-p', port]),
    '-q',
    name,
    '-t',
    type,
    role === 'resolver' ? '+recurse' : '+norecurse',
    ...(unchecked ? ['+cdflag'] : []),
    ...(type === 'DS' || type === 'DNSKEY' ? ['+dnssec'] : []),
  ]);
}

/** How a request was sent. */
function curlLine(
  { url, method, address }: Pick<Exchange, 'url' | 'method' | 'address'>,
  { agent, target }: Pick<Evidence, 'agent' | 'target'>,
): string | undefined {
  const parsed = parseUrl(url);
  if (!parsed) return undefined;
  const port = parsed.port || (parsed.protocol === 'https:' ? '443' : '80');
  const at = address === undefined ? undefined : placeOf(address, port).address;
  const isAtTarget = hostOf(url) === hostOf(target.url);
  // what gets the auditor in is theirs to fill in
  const access: Record<string, string[]> = {
    credentials: ['--user', 'USER:PASSWORD'],
    cookie: ['--cookie', 'NAME=VALUE'],
    parameter: ['--get', '--data', 'NAME=VALUE'],
  };
  return shellLine([
    'curl',
    '--silent',
    '--show-error',
    '--globoff',
    ...(method === 'HEAD' ? ['--head'] : ['--dump-header', '-', '--output', '/dev/null']),
    ...(agent ? ['--user-agent', agent] : []),
    ...(isAtTarget ? (access[target.wayIn] ?? []) : []),
    ...(at === undefined
      ? []
      : ['--resolve', `${parsed.hostname}:${port}:${at.includes(':') ? `[${at}]` : at}`]),
    url,
  ]);
}

function opensslLine(host: string, address: string | undefined, port = '443'): string | undefined {
  const at = address === undefined ? host : placeOf(address, port).address;
  return shellLine([
    'openssl',
    's_client',
    '-connect',
    `${at.includes(':') ? `[${at}]` : at}:${port}`,
    '-servername',
    host,
    '-verify_hostname',
    host,
    '-showcerts',
  ]);
}

/** The words of a place that may be a name, an address or a URL. */
const wordsOf = (place: string): string[] => place.split(/\s+/).filter(Boolean).slice(0, 6);

function digs(check: Check, place: string, { dns }: Evidence): ShownBy[] {
  const words = wordsOf(place);
  const names = new Set(words.map((word) => plainName(hostOf(word) ?? word)));
  const typed = words.filter((word) => /^[A-Z]{1,6}$/.test(word));
  const types = new Set(typed.length ? typed : (TYPES[check.id] ?? WEB_TYPES));
  const asked = dns.answers.filter((a) => names.has(plainName(a.name)) && types.has(a.type));
  // what the zone's own servers say comes before what a resolver kept of it
  const order: DnsAnswer['role'][] = ['authority', 'parent', 'resolver', 'coming'];
  const sorted = asked.sort((a, b) => order.indexOf(a.role) - order.indexOf(b.role));
  return fewCommands(sorted.flatMap((a) => digLine(a) ?? [])).map((line) => ({
    tool: 'dig',
    line,
  }));
}

function handshakes(place: string, { hosts, target }: Evidence): ShownBy[] {
  const words = wordsOf(place);
  const host = hosts.find((h) => words.includes(h.host) || words.some((w) => hostOf(w) === h.host));
  if (!host) return [];
  const own = host.addresses.find((a) => words.includes(a.address))?.address;
  const port = hostOf(target.url) === host.host ? new URL(target.url).port : '';
  const line = opensslLine(host.host, own ?? host.tls.address, port || '443');
  // the handshake alone: without an end of its own the command would wait
  return line ? [{ tool: 'openssl', line: `${line} </dev/null` }] : [];
}

/** Every request that was sent for an address, by the page it belongs to. */
function chainsOf(evidence: Evidence): Chain[] {
  const { pages, hosts, robots, sitemaps, paths, folders, tokenFiles, links, assets, former, variants } =
    evidence;
  return [
    ...pages.map((p) => p.chain),
    ...hosts.flatMap((h) => [h.https, h.http, h.httpsPath, h.httpPath]),
    robots.chain,
    ...[sitemaps, paths, folders, tokenFiles, links, assets, former, variants].flatMap((list) =>
      (list as { chain?: Chain }[]).flatMap((one) => one.chain ?? []),
    ),
    ...(evidence.notFound ? [evidence.notFound] : []),
    ...(evidence.mtaSts ? [evidence.mtaSts.chain] : []),
  ];
}

function requests(place: string, evidence: Evidence): ShownBy[] {
  const words = wordsOf(place);
  const urls = new Set(words.filter((word) => /^https?:\/\//i.test(word)));
  const host = evidence.hosts.find((h) => words.includes(h.host));
  const address = host?.addresses.find((a) => words.includes(a.address));
  const exchanges = address
    ? [{ ...address.exchange, address: address.exchange.address ?? address.address }]
    : host && !urls.size
      ? [host.https, host.http].flatMap((chain) => chain.hops.slice(0, 2))
      : chainsOf(evidence)
          .filter(({ start, hops }) => urls.has(start) || urls.has(lastAnswer({ hops } as Chain)?.url ?? ''))
          .flatMap(({ hops }) => hops.slice(0, 2));
  const lines = exchanges.flatMap((exchange) => curlLine(exchange, evidence) ?? []);
  return fewCommands(lines).map((line) => ({ tool: 'curl', line }));
}

/**
 * @param place of a finding: an address, a host, or a name with its record type
 * @returns none where it rests on nothing that a command shows, or on what cannot be pasted safely
 */
export function commandsFor(check: Check, place: string, evidence: Evidence): ShownBy[] {
  const parts = new Set<string>(check.byHand ? NONE : partsOf(check));
  const web = ['http', 'pages', 'files'].some((part) => parts.has(part));
  return [
    ...(parts.has('dns') ? digs(check, place, evidence) : []),
    ...(parts.has('tls') || check.id === 'domain.every-address' ? handshakes(place, evidence) : []),
    ...(web ? requests(place, evidence) : []),
  ];
}
