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

function mechanism(raw: string, errors: string[]): SpfMechanism | null {
  const m =
    /^([+\-~?]?)(all|include|a|mx|ptr|ip4|ip6|exists)(?=$|[:/])(?::([^/]*(?:\/(?!\/?\d+)[^/]*)*))?(\/.*)?$/i.exec(
      raw,
    );
  if (!m) return null;
  const name = m[2]!.toLowerCase() as SpfMechanism['name'];
  const out: SpfMechanism = { qualifier: (m[1] || '+') as SpfQualifier, name, raw };
  const wrong = (why: string): SpfMechanism => {
    errors.push(`“${raw}”: ${why}`);
    return out;
  };
  let value = m[3];
  const cidr = m[4] ?? '';
  if (name === 'ip6' && value !== undefined) value = raw.slice(raw.indexOf(':') + 1).replace(/\/\d+$/, '');
  if (value !== undefined) out.value = value;
  const digits = /^(?:\/(0|[1-9]\d{0,2}))?(?:\/\/(0|[1-9]\d{0,2}))?$/.exec(
    name === 'ip6' ? `/${cidr}` : cidr,
  );
  if (!digits && cidr) return wrong('no prefix length');
  const four = digits?.[1] === undefined ? undefined : Number(digits[1]);
  const six = digits?.[2] === undefined ? undefined : Number(digits[2]);
  if ((four ?? 0) > 32) return wrong('a prefix length over 32');
  if ((six ?? 0) > 128) return wrong('a prefix length over 128');
  if (four !== undefined) out.cidr4 = four;
  if (six !== undefined) out.cidr6 = six;
  switch (name) {
    case 'all':
      return value !== undefined || cidr ? wrong('“all” takes nothing after it') : out;
    case 'ip4':
      return six !== undefined || !soundIp4(value ?? '') ? wrong('no IPv4 network') : out;
    case 'ip6':
      return !soundIp6(value ?? '') ? wrong('no IPv6 network') : out;
    case 'include':
    case 'exists':
      return cidr || !soundDomain(value ?? '') ? wrong('a domain is missing or malformed') : out;
    case 'ptr':
      return cidr || (value !== undefined && !soundDomain(value)) ? wrong('malformed domain') : out;
    default:
      return value !== undefined && !soundDomain(value) ? wrong('malformed domain') : out;
  }
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
}

export interface SpfCount {
  tree: SpfTree;
  lookups: number;
  voids: number;
  errors: string[];
  unknown: string[];
}

/**
 * Follows includes and redirects and counts lookups and void lookups (RFC 7208 4.6.4: at most ten and two).
 * Domains with macros cannot be followed without a sender; they are counted and named in `unknown`.
 */
export function countSpf(domain: string, dns: SpfDns): SpfCount {
  const count: SpfCount = { tree: { domain, children: [] }, lookups: 0, voids: 0, errors: [], unknown: [] };
  const walk = (at: string, path: readonly string[], included: boolean): SpfTree => {
    const node: SpfTree = { domain: at, children: [] };
    const answer = dns.txt(at);
    const own = answer.values.filter(isSpf);
    if (included && !answer.values.length && !answer.failed) count.voids++;
    if (own.length !== 1) {
      node.problem = answer.failed ? 'no answer' : own.length ? `${own.length} SPF records` : 'no SPF record';
      if (answer.failed) count.unknown.push(at);
      else if (included || own.length > 1) count.errors.push(`${at}: ${node.problem}`);
      return node;
    }
    node.text = own[0]!;
    const record = (node.record = parseSpf(own[0]!));
    count.errors.push(...record.errors.map((e) => `${at}: ${e}`));
    const follow = (target: string) => {
      const next = target.toLowerCase().replace(/\.$/, '');
      if (target.includes('%')) {
        count.unknown.push(target);
        return;
      }
      if (path.includes(next)) {
        count.errors.push(`${at} leads back to ${next}`);
        return;
      }
      if (count.lookups > 40) return;
      node.children.push(walk(next, [...path, next], true));
    };
    for (const m of record.mechanisms) {
      if (!ASKS.has(m.name)) continue;
      count.lookups++;
      if (m.name === 'include' && m.value) follow(m.value);
      else if (m.name !== 'ptr' && m.name !== 'include') {
        const name = m.value ?? at;
        if (name.includes('%')) count.unknown.push(name);
        else if (dns.exists(name, m.name === 'mx' ? 'MX' : 'A') === false) count.voids++;
      }
      if (m.name === 'all') break;
    }
    // a redirect counts only where no "all" stands (RFC 7208 6.1)
    const redirect = record.modifiers.find((m) => m.name === 'redirect');
    if (redirect && !record.mechanisms.some((m) => m.name === 'all')) {
      count.lookups++;
      follow(redirect.value);
    }
    return node;
  };
  const start = domain.toLowerCase().replace(/\.$/, '');
  count.tree = walk(start, [start], false);
  return count;
}

/** The domains a record leads to, for collecting: includes and the redirect. */
export function spfTargets(text: string): { follow: string[]; ask: { name?: string; type: 'A' | 'MX' }[] } {
  const { mechanisms, modifiers } = parseSpf(text);
  const follow = [
    ...mechanisms.filter((m) => m.name === 'include').map((m) => m.value),
    ...modifiers.filter((m) => m.name === 'redirect').map((m) => m.value),
  ];
  return {
    follow: follow.filter((d): d is string => d !== undefined && soundDomain(d) && !d.includes('%')),
    ask: mechanisms
      .filter((m) => (m.name === 'a' || m.name === 'mx' || m.name === 'exists') && !m.value?.includes('%'))
      .map((m) => ({ ...(m.value ? { name: m.value } : {}), type: m.name === 'mx' ? 'MX' : 'A' })),
  };
}
