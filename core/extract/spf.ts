/** SPF records (RFC 7208): their grammar, and the counting of what evaluating them would ask of the DNS. */

export type SpfQualifier = '+' | '-' | '~' | '?';
export interface SpfMechanism {
  qualifier: SpfQualifier;
  name: 'all' | 'include' | 'a' | 'mx' | 'ptr' | 'ip4' | 'ip6' | 'exists';
  value?: string;
  cidr4?: number;
  cidr6?: number;
  raw: string;
}
export interface SpfModifier {
  name: string;
  value: string;
  raw: string;
}
export interface SpfRecord {
  mechanisms: SpfMechanism[];
  modifiers: SpfModifier[];
  errors: string[];
}

/** Whether a TXT value is an SPF record: the version, then a space or the end (RFC 7208 4.5). */
export function isSpf(text: string): boolean {
  return /^v=spf1(?: |$)/i.test(text);
}

// RFC 7208 7.1: %{letter digits r delimiters}, %%, %_, %-
const MACRO = /%(?:\{[slodiphcrtv][0-9]*r?[.\-+,/_=]*\}|[%_-])/gi;
const soundMacros = (text: string): boolean => !text.replace(MACRO, '').includes('%');
/** A domain-spec (RFC 7208 7.1): macros and visible characters, ending in a label or a macro. */
function soundDomain(text: string): boolean {
  if (!text || !soundMacros(text) || /[^\x21-\x7e]/.test(text)) return false;
  if (/%\{[^}]*\}$/.test(text)) return true;
  const label = text.replace(/\.$/, '').split('.').at(-1)!;
  return text.includes('.') && /[a-z]/i.test(label) && /^[a-z0-9]([a-z0-9-]*[a-z0-9])?$/i.test(label);
}
const soundIp4 = (text: string): boolean =>
  /^\d{1,3}(\.\d{1,3}){3}$/.test(text) &&
  text.split('.').every((n) => Number(n) <= 255 && (n === '0' || !n.startsWith('0')));
const soundIp6 = (text: string): boolean => {
  try {
    return text.includes(':') && new URL(`http://[${text}]/`).hostname !== '';
  } catch {
    return false;
  }
};

const MECHANISM =
  /^([+\-~?]?)(all|include|a|mx|ptr|ip4|ip6|exists)(?=$|[:/])(?::([^/]*(?:\/(?!\/?\d+)[^/]*)*))?(\/.*)?$/i;
const PREFIX_LENGTHS = /^(?:\/(0|[1-9]\d{0,2}))?(?:\/\/(0|[1-9]\d{0,2}))?$/;

/** What follows a mechanism's name: its value and the digits behind the slashes. */
interface Argument {
  value?: string;
  /** As it stands there, with its slashes. */
  cidr: string;
  cidr4?: number;
  cidr6?: number;
}

/** What is wrong with a mechanism's argument (RFC 7208 5); undefined when nothing is. */
const FAULTS: Record<SpfMechanism['name'], (argument: Argument) => string | undefined> = {
  all: ({ value, cidr }) => (value !== undefined || cidr ? '“all” takes nothing after it' : undefined),
  ip4: ({ value, cidr6 }) => (cidr6 !== undefined || !soundIp4(value ?? '') ? 'no IPv4 network' : undefined),
  ip6: ({ value }) => (soundIp6(value ?? '') ? undefined : 'no IPv6 network'),
  include: neededDomain,
  exists: neededDomain,
  ptr: ({ value, cidr }) => (cidr || !soundOrNone(value) ? 'malformed domain' : undefined),
  a: ({ value }) => (soundOrNone(value) ? undefined : 'malformed domain'),
  mx: ({ value }) => (soundOrNone(value) ? undefined : 'malformed domain'),
};
function neededDomain({ value, cidr }: Argument): string | undefined {
  return cidr || !soundDomain(value ?? '') ? 'a domain is missing or malformed' : undefined;
}
function soundOrNone(value: string | undefined): boolean {
  return value === undefined || soundDomain(value);
}

/** The digits behind the slashes; a string says what is wrong with them. */
function prefixLengths(cidr: string, isIp6: boolean): Pick<Argument, 'cidr4' | 'cidr6'> | string {
  const digits = PREFIX_LENGTHS.exec(isIp6 ? `/${cidr}` : cidr);
  if (!digits && cidr) return 'no prefix length';
  const [, four, six] = digits ?? [];
  if (Number(four ?? 0) > 32) return 'a prefix length over 32';
  if (Number(six ?? 0) > 128) return 'a prefix length over 128';
  return {
    ...(four === undefined ? {} : { cidr4: Number(four) }),
    ...(six === undefined ? {} : { cidr6: Number(six) }),
  };
}

function mechanism(raw: string, errors: string[]): SpfMechanism | null {
  const match = MECHANISM.exec(raw);
  if (!match) return null;
  const [, qualifier, written, given, cidr = ''] = match;
  const name = written!.toLowerCase() as SpfMechanism['name'];
  const isIp6 = name === 'ip6';
  // the colons of an IPv6 address are its own
  const value = isIp6 && given !== undefined ? raw.slice(raw.indexOf(':') + 1).replace(/\/\d+$/, '') : given;
  const lengths = prefixLengths(cidr, isIp6);
  const known = typeof lengths === 'string' ? {} : lengths;
  const fault = typeof lengths === 'string' ? lengths : FAULTS[name]({ value, cidr, ...lengths });
  if (fault) errors.push(`“${raw}”: ${fault}`);
  return {
    qualifier: (qualifier || '+') as SpfQualifier,
    name,
    raw,
    ...(value === undefined ? {} : { value }),
    ...known,
  };
}

/**
 * Parses the terms of a record (RFC 7208 4.6.1, section 12). Errors are what makes a receiver answer
 * "permerror".
 */
export function parseSpf(text: string): SpfRecord {
  const record: SpfRecord = { mechanisms: [], modifiers: [], errors: [] };
  const seen = new Set<string>();
  for (const raw of text.slice(6).split(' ').filter(Boolean).slice(0, 300)) {
    const modifier = /^([a-z][a-z0-9\-_.]*)=(.*)$/i.exec(raw);
    if (modifier) {
      const name = modifier[1]!.toLowerCase(),
        value = modifier[2]!;
      if ((name === 'redirect' || name === 'exp') && seen.has(name))
        record.errors.push(`“${name}=” stands there twice`);
      seen.add(name);
      if (name === 'redirect' || name === 'exp' ? !soundDomain(value) : !soundMacros(value))
        record.errors.push(`“${raw}”: malformed`);
      record.modifiers.push({ name, value, raw });
      continue;
    }
    const found = mechanism(raw, record.errors);
    if (found) record.mechanisms.push(found);
    else record.errors.push(`“${raw}” is no mechanism`);
  }
  return record;
}

/** Those that are ever tested: what stands after "all" is ignored (RFC 7208 5.1). */
export function tested(mechanisms: readonly SpfMechanism[]): readonly SpfMechanism[] {
  const end = mechanisms.findIndex((m) => m.name === 'all');
  return end < 0 ? mechanisms : mechanisms.slice(0, end + 1);
}

/** Terms that ask the DNS (RFC 7208 4.6.4), each one of the ten allowed. */
const ASKS = new Set(['include', 'a', 'mx', 'ptr', 'exists']);

export interface SpfTree {
  domain: string;
  text?: string;
  record?: SpfRecord;
  /** Why this domain has no one record: none, several, or no answer. */
  problem?: string;
  children: SpfTree[];
}

/**
 * What the DNS said: TXT strings joined, or why not. `exists` for a/mx/exists terms: whether the name has any
 * answer.
 */
export interface SpfDns {
  txt(domain: string): { values: string[]; failed?: boolean };
  exists(name: string, type: 'A' | 'MX'): boolean | undefined;
  /** How many exchangers a name has; undefined where they were not asked. */
  exchangers?(name: string): number | undefined;
}

export interface SpfCount {
  tree: SpfTree;
  lookups: number;
  voids: number;
  /** Terms with macros: each may be one more void lookup, as the sender is. */
  maybeVoids: number;
  errors: string[];
  unknown: string[];
}

const DOMAIN_MACRO = /%(?:\{d(\d*)(r?)([.\-+,/_=]*)\}|([%_-]))/gi;
const LITERALS: Record<string, string> = { '%': '%', _: ' ', '-': '%20' };

/**
 * A domain-spec with the domain that is being evaluated put in for its macros (RFC 7208 7.3).
 * @returns undefined where it rests on the sender or on who sends
 */
export function ofDomain(spec: string, domain: string): string | undefined {
  const own = spec.replace(
    DOMAIN_MACRO,
    (_, digits: string, reversed: string, delimiters: string, literal?: string) => {
      if (literal) return LITERALS[literal]!;
      const parts = domain.split(new RegExp(`[${(delimiters || '.').replace(/[/-]/g, '\\$&')}]`));
      if (reversed) parts.reverse();
      return parts.slice(-(Number(digits) || parts.length)).join('.');
    },
  );
  return /%\{/.test(own) ? undefined : own;
}

/** Lower-cased, without the final dot. */
const plainDomain = (domain: string): string => domain.toLowerCase().replace(/\.$/, '');

/** Names that one mechanism may lead to (RFC 7208 4.6.4). */
const MOST_NAMES = 10;

/** Follows the records of a domain, counting as it goes. */
class SpfWalk {
  readonly count: Omit<SpfCount, 'tree'> = {
    lookups: 0,
    voids: 0,
    maybeVoids: 0,
    errors: [],
    unknown: [],
  };

  constructor(private readonly dns: SpfDns) {}

  /** @param path the domains that led here, this one last */
  domain(at: string, path: readonly string[], included: boolean): SpfTree {
    const node: SpfTree = { domain: at, children: [] };
    const answer = this.dns.txt(at);
    const own = answer.values.filter(isSpf);
    if (included && !answer.values.length && !answer.failed) this.count.voids++;
    if (own.length !== 1) {
      node.problem = this.problem(at, own.length, answer.failed === true, included);
      return node;
    }
    node.text = own[0]!;
    node.record = parseSpf(node.text);
    this.count.errors.push(...node.record.errors.map((e) => `${at}: ${e}`));
    this.terms(node, path);
    return node;
  }

  /** A domain without its one record. */
  private problem(at: string, records: number, failed: boolean, included: boolean): string {
    if (failed) {
      this.count.unknown.push(at);
      return 'no answer';
    }
    const problem = records ? `${records} SPF records` : 'no SPF record';
    if (included || records > 1) this.count.errors.push(`${at}: ${problem}`);
    return problem;
  }

  private terms(node: SpfTree, path: readonly string[]): void {
    const { mechanisms, modifiers } = node.record!;
    for (const m of tested(mechanisms)) {
      if (!ASKS.has(m.name)) continue;
      this.count.lookups++;
      if (m.name === 'include') {
        if (m.value) this.follow(m.value, node, path);
      } else if (m.name !== 'ptr')
        this.ask(m.value ?? node.domain, m.name === 'mx' ? 'MX' : 'A', node.domain);
    }
    // a redirect counts only where no "all" stands (RFC 7208 6.1)
    const redirect = modifiers.find((m) => m.name === 'redirect');
    if (!redirect || mechanisms.some((m) => m.name === 'all')) return;
    this.count.lookups++;
    this.follow(redirect.value, node, path);
  }

  private ask(spec: string, type: 'A' | 'MX', domain: string): void {
    const name = ofDomain(spec, domain);
    // one lookup, and without an answer for some senders at most
    if (name === undefined) {
      this.count.maybeVoids++;
      return;
    }
    if (this.dns.exists(name, type) === false) this.count.voids++;
    const exchangers = type === 'MX' ? (this.dns.exchangers?.(name) ?? 0) : 0;
    if (exchangers > MOST_NAMES)
      this.count.errors.push(
        `${domain}: “mx” leads to ${exchangers} names of ${name}, where ${MOST_NAMES} are allowed`,
      );
  }

  private follow(target: string, from: SpfTree, path: readonly string[]): void {
    const own = ofDomain(target, from.domain);
    const next = plainDomain(own ?? target);
    if (own === undefined) this.count.unknown.push(target);
    else if (path.includes(next)) this.count.errors.push(`${from.domain} leads back to ${next}`);
    else if (this.count.lookups <= MOST_FOLLOWED)
      from.children.push(this.domain(next, [...path, next], true));
  }
}

/** Further than this nobody looks: the limit of ten is long past. */
const MOST_FOLLOWED = 40;

/**
 * Follows includes and redirects and counts lookups and void lookups (RFC 7208 4.6.4: at most ten and two).
 * Includes with macros of the sender cannot be followed; they are counted and named in `unknown`.
 */
export function countSpf(domain: string, dns: SpfDns): SpfCount {
  const walk = new SpfWalk(dns);
  const start = plainDomain(domain);
  const tree = walk.domain(start, [start], false);
  return { tree, ...walk.count };
}

/** What a record of a domain leads to, for collecting: includes and the redirect, and names that are asked for. */
export function spfTargets(
  text: string,
  domain: string,
): { follow: string[]; ask: { name: string; type: 'A' | 'MX' }[] } {
  const record = parseSpf(text);
  const { modifiers } = record;
  const mechanisms = tested(record.mechanisms);
  const own = (spec: string | undefined): string[] => {
    const name = spec === undefined ? undefined : ofDomain(spec, domain);
    return name !== undefined && soundDomain(name) ? [name] : [];
  };
  return {
    follow: [
      ...mechanisms.filter((m) => m.name === 'include').flatMap((m) => own(m.value)),
      ...modifiers.filter((m) => m.name === 'redirect').flatMap((m) => own(m.value)),
    ],
    ask: mechanisms
      .filter((m) => m.name === 'a' || m.name === 'mx' || m.name === 'exists')
      .flatMap((m) =>
        (m.value === undefined ? [domain] : own(m.value)).map((name) => ({
          name,
          type: m.name === 'mx' ? ('MX' as const) : ('A' as const),
        })),
      ),
  };
}
