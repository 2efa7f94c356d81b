/**
 * From the records that are served to those that are wanted: what to add, change, take away and keep, what stands in
 * the way, and when the last cache that obeys TTLs has let go of the old answer. Pure.
 */
import { caaClimb, mayIssue, parseCaa } from '#core/extract/caa';
import { isDmarc, parseDmarc } from '#core/extract/dmarc';
import { canonicalValue, plainName } from '#core/checks/kit/dns-answers';
import { rangeOf } from '#core/facts/address-ranges';
import { zoneLine } from '#core/formats/zone-file/write';
import type { ExpectedRecord } from '#core/facts/brief';
import { joinedText } from '#core/facts/dns-text';
import type { DnsEvidence, DnsRecord } from '#core/facts/evidence';

/** Types by which a name is reached: of these nothing is left beside what is wanted. */
const REACHING = ['A', 'AAAA', 'CNAME', 'HTTPS'] as const;
/** Types of which a name has one set, wanted whole. */
const WHOLE = new Set<string>([...REACHING, 'MX', 'NS', 'CAA']);

type CutOverAction = 'add' | 'change' | 'take away' | 'keep';

/** One set of records of one name and type. */
export interface CutOverLine {
  action: CutOverAction;
  name: string;
  type: string;
  before: string[];
  after: string[];
  /** Of what is served; nothing where there is none. Seconds. */
  ttl?: number;
  /** How long the old answer lives in caches after the change, at most. Seconds. */
  lasts: number;
}

export interface CutOver {
  lines: CutOverLine[];
  /** What would go wrong, in sentences. */
  conflicts: string[];
  /** What is to stand there, as lines of a zone file. */
  wanted: string;
  /** What stands there now of all that changes, as lines of a zone file: the way back. */
  back: string;
  /** What stands there now of all that changes, with the TTL of a change that is near. */
  lowered: string;
  /** Where the name servers move: what has to stand at the new ones first, and how long the old ones are still asked. */
  move: ServersMove | null;
  /** Where the address is reached by forwarding: from which hosts, to where. */
  forward: Forward | null;
}

interface ServersMove {
  from: string[];
  to: string[];
  /** How long caches may go on asking the old servers: the longer of the TTLs above and in the zone. Seconds. */
  nsTtl: number;
  /** The whole zone as it has to stand at the new servers before anything is moved. */
  zone: string;
}

interface Forward {
  to: string;
  /** Each host that is forwarded, with what it leads to today and how long caches keep that, in seconds. */
  hosts: { host: string; today: string[]; lasts: number }[];
}

export interface CutOverInput extends AsGood {
  served: readonly DnsRecord[];
  wanted: readonly ExpectedRecord[];
  /** How long a name or type is known not to be there (RFC 2308 5): the lesser of the SOA’s TTL and minimum. */
  negativeTtl: number;
  /** Whether names that are not there are answered by a wildcard. */
  hasWildcard?: boolean;
  /** Who is to issue certificates at the new host. */
  issuer?: string;
  /** The zone’s name servers of today and those that are wanted, where they are named. */
  nameServers?: { today: readonly string[]; wanted: readonly string[]; nsTtl: number };
  /** Where the address is reached by forwarding. */
  forwarding?: { hosts: readonly string[]; to: string };
}

const NAME_TYPES = new Set(['CNAME', 'MX', 'NS', 'HTTPS']);
/** A value as it is shown and pasted, however a server, a zone file or a person has written it. */
export const plainValue = (type: string, value: string): string => {
  if (type === 'TXT' || type === 'SPF') return joinedText(value);
  const folded = value.trim().replace(/\s+/g, ' ');
  return NAME_TYPES.has(type) ? plainName(folded) : folded;
};
const keyOf = (name: string, type: string): string => `${plainName(name)} ${type}`;

const isReaching = (type: string): boolean => (REACHING as readonly string[]).includes(type);

/** Whether two sets of values of a type are the same, however they are written and ordered. */
export function sameValues(type: string, a: readonly string[], b: readonly string[]): boolean {
  const spelled = (values: readonly string[]): Set<string> =>
    new Set(values.map((value) => canonicalValue(type, value)));
  const [one, other] = [spelled(a), spelled(b)];
  return one.size === other.size && [...one].every((value) => other.has(value));
}

/** All values of both, each once. */
function joined(type: string, a: readonly string[], b: readonly string[]): string[] {
  const known = new Set(a.map((value) => canonicalValue(type, value)));
  return [...a, ...b.filter((value) => !known.has(canonicalValue(type, value)))].sort();
}

type Sets = Map<string, { name: string; type: string; values: string[]; ttl: number }>;

/** Records by name and type, their values plain and each once. */
export function setsOf(records: readonly (ExpectedRecord | DnsRecord)[]): Sets {
  const sets: Sets = new Map();
  for (const { name, type, value, ttl = 0 } of records) {
    const key = keyOf(name, type);
    const set = sets.get(key) ?? { name: plainName(name), type, values: [], ttl };
    set.values = joined(type, set.values, [plainValue(type, value)]);
    // of one set all have one TTL (RFC 2181 5.2); of servers that differ the longest counts
    set.ttl = Math.max(set.ttl, ttl);
    sets.set(key, set);
  }
  return sets;
}

/** What counts as served as it is wanted, although it reads otherwise. */
export interface AsGood {
  /** The addresses of names that aliases lead to: hosts and operators may flatten an alias into these. */
  aliases?: Readonly<Record<string, readonly string[]>>;
  /** Addresses that the host answers from, as CIDR ranges. */
  ranges?: readonly string[];
}

/** Whether addresses are those of a wanted alias, flattened (common practice). */
export function isFlattened(
  alias: string | undefined,
  addresses: readonly string[],
  { aliases = {} }: AsGood,
): boolean {
  const known = new Set(alias === undefined ? [] : aliases[plainName(alias)]);
  return addresses.length > 0 && addresses.every((address) => known.has(address));
}

/** Whether addresses are all of the host, which answers from others from day to day. */
export const isInRanges = (type: string, addresses: readonly string[], { ranges }: AsGood): boolean =>
  (type === 'A' || type === 'AAAA') &&
  addresses.length > 0 &&
  addresses.every((address) => rangeOf(address, ranges) !== undefined);

/** The wanted sets, with what is served in place of those that it is as good as; `domain.records-match` has the same rule. */
function asServed(served: Sets, wanted: Sets, good: AsGood): Sets {
  const out: Sets = new Map();
  for (const [key, set] of wanted) {
    const { name, type, values } = set;
    const now = served.get(key);
    const addresses = ['A', 'AAAA'].flatMap((kind) => served.get(keyOf(name, kind)) ?? []);
    const isFlat =
      type === 'CNAME' &&
      !now &&
      isFlattened(
        values[0],
        addresses.flatMap((a) => a.values),
        good,
      );
    if (isFlat) for (const one of addresses) out.set(keyOf(name, one.type), one);
    else if (now && isInRanges(type, now.values, good)) out.set(key, { ...set, values: now.values });
    else out.set(key, set);
  }
  return out;
}

const ORDER: CutOverAction[] = ['add', 'change', 'take away', 'keep'];

/** Every set of the zone, with what becomes of it. */
function linesOf(served: Sets, wanted: Sets, negativeTtl: number): CutOverLine[] {
  // a name of which only a text or mail is wanted stays where it leads
  const asked = new Set([...wanted.values()].filter((w) => isReaching(w.type)).map((w) => w.name));
  const lines: CutOverLine[] = [];
  for (const key of new Set([...served.keys(), ...wanted.keys()])) {
    const now = served.get(key);
    const then = wanted.get(key);
    const { name, type } = (now ?? then)!;
    const before = now?.values ?? [];
    // a text is one of several, and none of the others is ours
    const after = then
      ? WHOLE.has(type)
        ? then.values
        : joined(type, before, then.values)
      : asked.has(name) && isReaching(type)
        ? []
        : before;
    const action: CutOverAction = sameValues(type, before, after)
      ? 'keep'
      : !before.length
        ? 'add'
        : after.length
          ? 'change'
          : 'take away';
    const lasts = action === 'keep' ? 0 : now ? now.ttl : negativeTtl;
    lines.push({ action, name, type, before, after, ...(now ? { ttl: now.ttl } : {}), lasts });
  }
  return lines.sort(
    (a, b) =>
      ORDER.indexOf(a.action) - ORDER.indexOf(b.action) ||
      (a.name === b.name ? (a.type < b.type ? -1 : 1) : a.name < b.name ? -1 : 1),
  );
}

/** A CNAME beside other data, or beside another. */
function aliasConflicts(lines: readonly CutOverLine[]): string[] {
  return lines.flatMap(({ name, type, after }) => {
    if (type !== 'CNAME' || !after.length) return [];
    const beside = lines.filter(
      (l) => l.name === name && l.after.length && !['CNAME', 'RRSIG', 'NSEC'].includes(l.type),
    );
    const types = beside.map((l) => l.type).join(', ');
    return [
      ...(types
        ? [`${name} would have a CNAME beside ${types}, which no name may have (RFC 1034 3.6.2).`]
        : []),
      ...(after.length > 1 ? [`${name} would have ${after.length} CNAMEs, where one is allowed.`] : []),
    ];
  });
}

/** DMARC reports to a mailbox whose mail goes elsewhere from then on. */
function reportConflicts(lines: readonly CutOverLine[]): string[] {
  const moving = new Set(lines.filter((l) => l.type === 'MX' && l.action !== 'keep').map((l) => l.name));
  return lines.flatMap(({ name, type, after }) =>
    (type === 'TXT' ? after.filter(isDmarc) : []).flatMap((text) => {
      const { aggregate, failure } = parseDmarc(text);
      const gone = [...aggregate, ...failure].filter((uri) => {
        const domain = /^mailto:[^@]+@([^!]+)/i.exec(uri)?.[1];
        return domain !== undefined && moving.has(plainName(domain));
      });
      return gone.length
        ? [
            `DMARC reports of ${name} go to ${gone.map((uri) => uri.replace(/^mailto:|!.*$/gi, '')).join(', ')}, whose mailbox moves: let it exist at the new place first.`,
          ]
        : [];
    }),
  );
}

const WILDCARD =
  'A wildcard answers for names that are not there: a name forgotten here does not show as missing.';

/** What of it would break something. */
const conflictsOf = (lines: readonly CutOverLine[], { issuer, hasWildcard }: CutOverInput): string[] => [
  ...aliasConflicts(lines),
  ...reportConflicts(lines),
  ...(issuer ? caaConflicts(lines, issuer) : []),
  ...(hasWildcard ? [WILDCARD] : []),
];

/** Names that are reached anew, and whose CAA forbids the new host’s issuer. */
function caaConflicts(lines: readonly CutOverLine[], issuer: string): string[] {
  const caa = new Map(lines.filter((l) => l.type === 'CAA').map((l) => [l.name, l.after]));
  const reached = new Set(
    lines.filter((l) => isReaching(l.type) && l.action !== 'keep' && l.after.length).map((l) => l.name),
  );
  return [...reached].flatMap((name) => {
    const at = caaClimb(name).find((n) => caa.get(n)?.length);
    const set = at === undefined ? [] : caa.get(at)!.flatMap((v) => parseCaa(v) ?? []);
    return set.length && !mayIssue(set, issuer)
      ? [`CAA at ${at} does not let ${issuer} issue a certificate for ${name}.`]
      : [];
  });
}

/** @param most seconds that a TTL may have; one that is shorter today stays so */
const asRecords = (lines: readonly CutOverLine[], which: 'before' | 'after', most?: number): string =>
  lines
    .flatMap((l) =>
      l[which].map((value) =>
        zoneLine({
          name: l.name,
          type: l.type,
          value,
          ttl: Math.min(l.ttl ?? most ?? 3600, most ?? Infinity),
        }),
      ),
    )
    .join('\n');

/** Seconds that new records are kept at first, so that a mistake is soon gone. */
export const FIRST_TTL = 300;

export function planCutOver(input: CutOverInput): CutOver {
  const served = setsOf(input.served);
  const lines = linesOf(served, asServed(served, setsOf(input.wanted), input), input.negativeTtl);
  const changing = lines.filter((l) => l.action !== 'keep');
  return {
    lines,
    conflicts: conflictsOf(lines, input),
    wanted: asRecords(changing, 'after', FIRST_TTL),
    back: asRecords(changing, 'before'),
    lowered: asRecords(changing, 'before', FIRST_TTL),
    move: moveOf(lines, input),
    forward: forwardOf(lines, input),
  };
}

/** Whether other servers are wanted than serve today; where either is not known, none move. */
export function serversDiffer(today: readonly string[], wanted: readonly string[]): boolean {
  const known = new Set(today.map(plainName));
  return known.size > 0 && wanted.some((name) => !known.has(plainName(name)));
}

function moveOf(lines: readonly CutOverLine[], { nameServers }: CutOverInput): ServersMove | null {
  if (!nameServers || !serversDiffer(nameServers.today, nameServers.wanted)) return null;
  return {
    from: nameServers.today.map(plainName).sort(),
    to: nameServers.wanted.map(plainName).sort(),
    nsTtl: nameServers.nsTtl,
    // the new operator sets its own NS records
    zone: asRecords(
      lines.filter((l) => l.type !== 'NS'),
      'after',
    ),
  };
}

function forwardOf(lines: readonly CutOverLine[], { forwarding, negativeTtl }: CutOverInput): Forward | null {
  if (!forwarding) return null;
  const hosts = forwarding.hosts.map((host) => {
    const own = lines.filter((l) => l.name === plainName(host) && isReaching(l.type));
    const today = own.flatMap((l) => l.before);
    return {
      host,
      today,
      lasts: today.length ? Math.max(...own.map((l) => l.ttl ?? 0)) : negativeTtl,
    };
  });
  return { to: forwarding.to, hosts };
}

/** When a change is seen: by nobody before the first, by everybody who obeys TTLs after the last. Milliseconds. */
export interface Spread {
  first: number;
  last: number;
}

/**
 * When the last cache has let go of an old answer.
 * @param ttl of the old answer, in seconds
 * @param changedAt when the record was changed at its servers
 * @param lowered when its TTL was lowered before, and to what; caches filled before that keep the old TTL
 */
export function spreadOf(ttl: number, changedAt: number, lowered?: { at: number; ttl: number }): Spread {
  if (!lowered || lowered.at > changedAt) return { first: changedAt, last: changedAt + 1000 * ttl };
  const before = lowered.at + 1000 * ttl;
  const after = changedAt + 1000 * lowered.ttl;
  return {
    first: changedAt,
    last: Math.min(Math.max(before, after), changedAt + 1000 * Math.max(ttl, lowered.ttl)),
  };
}

/**
 * The same where the name servers move: until the last cache has forgotten the old ones it may fetch the old answer
 * from them once more (RFC 2181 5.4.1, RFC 1034 4.3.5: the NS of the zone above and of the zone itself, whichever a
 * cache holds).
 * @param nsTtl seconds; 0 where the servers stay
 */
export function spreadOfMove(
  ttl: number,
  nsTtl: number,
  changedAt: number,
  lowered?: { at: number; ttl: number },
): Spread {
  return { first: changedAt, last: spreadOf(ttl, changedAt + 1000 * nsTtl, lowered).last };
}

/** What says when the last cache has let go. Times in milliseconds, TTLs in seconds. */
export interface Timing {
  changedAt: number;
  /** Of the name servers, where they move; 0 where they stay. */
  nsTtl: number;
  /** When the TTLs were lowered, to what, and what they were before. */
  lowered?: { at: number; ttl: number; oldTtl: number };
}

/** When the last cache that obeys TTLs lets go, and how that comes about. */
export interface Expiry {
  at: number;
  how: string;
}

/**
 * The same wherever it is shown: in the plan, on the run sheet and in the watch.
 * @param lines those that change
 */
export function expiryOf(
  lines: readonly Pick<CutOverLine, 'name' | 'type' | 'ttl' | 'lasts'>[],
  { changedAt, nsTtl, lowered }: Timing,
): Expiry {
  const servers = nsTtl ? ` after the old name servers are forgotten (${nsTtl} s)` : ' after the change';
  let worst: Expiry = {
    at: changedAt + 1000 * nsTtl,
    how: nsTtl ? `name servers: ${nsTtl} s after the change` : 'nothing old is kept by caches',
  };
  for (const line of lines) {
    // what is not there yet has no TTL that could have been lowered
    const own = line.ttl === undefined ? undefined : lowered;
    const ttl = Math.max(line.lasts, own?.oldTtl ?? 0);
    const { last } = spreadOfMove(ttl, nsTtl, changedAt, own);
    if (last <= worst.at) continue;
    const isOfOldTtl = own !== undefined && last === own.at + 1000 * ttl;
    const seconds = own ? Math.min(ttl, own.ttl) : ttl;
    const what = `${line.type} ${line.name}`;
    worst = {
      at: last,
      how: isOfOldTtl
        ? `${what}: caches filled before the TTL was lowered keep it ${ttl} s from then`
        : line.ttl === undefined
          ? `${what}: that it is missing is remembered ${seconds} s${servers}`
          : `${what}: TTL ${seconds} s${servers}`,
    };
  }
  return worst;
}

/** How long caches may ask the servers of today: the longest TTL of the zone’s NS, above and in it. Seconds. */
export function nsTtlOf({ zone, answers }: DnsEvidence): number {
  const all = answers
    .flatMap((a) => [...a.records, ...(a.authority ?? [])])
    .filter((r) => r.type === 'NS' && plainName(r.name) === zone);
  return Math.max(0, ...all.map((r) => r.ttl));
}

/** The addresses that were answered for each name asked, through its aliases. */
function addressesByName({ answers }: DnsEvidence): Record<string, string[]> {
  const found: Record<string, string[]> = {};
  for (const { name, type, records } of answers)
    if (type === 'A' || type === 'AAAA')
      found[plainName(name)] = [
        ...(found[plainName(name)] ?? []),
        ...records.filter((r) => r.type === type).map((r) => r.value),
      ];
  return found;
}

/** The addresses in lines of a zone file, such as those of the way back. */
export const oldAddressesIn = (lines: string): string[] =>
  lines.split('\n').flatMap((line) => /\s(?:A|AAAA)\s+(\S+)\s*$/.exec(line)?.[1] ?? []);

/** Names of a zone that still lead to one of some addresses, each with its record. */
export function stillLeadingTo(addresses: readonly string[], dns: DnsEvidence): string[] {
  const old = new Set(addresses);
  const { served } = servedBy(dns);
  return [
    ...new Set(
      served
        .filter((r) => (r.type === 'A' || r.type === 'AAAA') && old.has(r.value))
        .map((r) => `${r.type} ${plainName(r.name)}: ${r.value}`),
    ),
  ].sort();
}

/** What a zone serves, as its own servers say, else the resolver; and what goes with it. */
export function servedBy(
  dns: DnsEvidence,
): Pick<CutOverInput, 'served' | 'negativeTtl' | 'hasWildcard' | 'aliases'> {
  const own = dns.answers.filter((a) => a.role === 'authority');
  const asked = own.length ? own : dns.answers.filter((a) => a.role === 'resolver');
  const zone = dns.zone;
  const isOwn = (name: string): boolean => zone === null || name === zone || name.endsWith(`.${zone}`);
  const isMadeUp = (name: string): boolean => name.startsWith(`${dns.randomLabel}.`);
  const served = asked.flatMap((a) =>
    a.records.filter((r) => r.name === a.name && r.type === a.type && isOwn(r.name) && !isMadeUp(r.name)),
  );
  const soa = dns.answers
    .flatMap((a) => [...a.records, ...(a.authority ?? [])])
    .find((r) => r.type === 'SOA' && r.name === zone);
  const minimum = Number(soa?.value.split(/\s+/)[6] ?? NaN);
  return {
    served: served.filter((r) => !['SOA', 'RRSIG', 'NSEC', 'NSEC3', 'DNSKEY'].includes(r.type)),
    // RFC 2308 5: the lesser of the SOA's own TTL and its minimum; an hour where none was seen
    negativeTtl: soa && Number.isFinite(minimum) ? Math.min(soa.ttl, minimum) : 3600,
    hasWildcard: asked.some((a) => isMadeUp(a.name) && a.records.length > 0),
    aliases: addressesByName(dns),
  };
}
