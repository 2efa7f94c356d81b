/**
 * Zone files in the master format of RFC 1035 section 5 (with $TTL of RFC 2308 and the unknown types of RFC
 * 3597): records in and out.
 */
import type { DnsAnswer, DnsEvidence } from '#core/facts/evidence';

export interface ZoneFileRecord {
  name: string;
  type: string;
  ttl?: number;
  value: string;
}
export interface ZoneFile {
  records: ZoneFileRecord[];
  /** What could not be read, each with its line. */
  errors: { line: number; message: string }[];
}

const MOST_RECORDS = 20_000;
const UNITS: Record<string, number> = { s: 1, m: 60, h: 3600, d: 86_400, w: 604_800 };
const TYPE = /^(?:[A-Z][A-Z0-9-]*|TYPE\d+)$/;
/** Which words of a type's data are names, relative ones to be completed. */
const NAMES: Record<string, number[]> = {
  CNAME: [0],
  NS: [0],
  PTR: [0],
  DNAME: [0],
  MX: [1],
  SRV: [3],
  SOA: [0, 1],
  HTTPS: [1],
  SVCB: [1],
};

interface Token {
  text: string;
  quoted: boolean;
}
interface Line {
  at: number;
  blank: boolean;
  tokens: Token[];
}

/**
 * Words of entries: comments left out, parentheses joined over lines, quotes and backslashes kept as they
 * stand.
 */
function entriesOf(source: string, errors: ZoneFile['errors']): Line[] {
  const out: Line[] = [];
  let line: Line | undefined;
  let depth = 0;
  let number = 1;
  let i = 0;
  const end = (): void => {
    if (line?.tokens.length) out.push(line);
    line = undefined;
  };
  while (i < source.length) {
    const c = source[i]!;
    if (c === '\n') {
      number++;
      i++;
      if (!depth) end();
      continue;
    }
    if (c === ' ' || c === '\t' || c === '\r') {
      if (!line) line = { at: number, blank: true, tokens: [] };
      i++;
      continue;
    }
    if (c === ';') {
      while (i < source.length && source[i] !== '\n') i++;
      continue;
    }
    line ??= { at: number, blank: false, tokens: [] };
    if (c === '(') {
      depth++;
      i++;
      continue;
    }
    if (c === ')') {
      if (depth) depth--;
      else errors.push({ line: number, message: 'a closing bracket without an opening one' });
      i++;
      continue;
    }
    let text = '';
    if (c === '"') {
      i++;
      while (i < source.length && source[i] !== '"') {
        if (source[i] === '\n') break;
        if (source[i] === '\\' && i + 1 < source.length) text += source[i++];
        text += source[i++];
      }
      if (source[i] !== '"') errors.push({ line: number, message: 'a quoted text without an end' });
      else i++;
      line.tokens.push({ text, quoted: true });
      continue;
    }
    while (i < source.length && !' \t\r\n;()"'.includes(source[i]!)) {
      if (source[i] === '\\' && i + 1 < source.length && source[i + 1] !== '\n') text += source[i++];
      text += source[i++];
    }
    line.tokens.push({ text, quoted: false });
  }
  if (depth) errors.push({ line: number, message: 'a bracket is not closed' });
  end();
  return out;
}

/** "3600" or "1h30m" in seconds; undefined when it is none. */
export function readTtl(text: string): number | undefined {
  if (/^\d{1,10}$/.test(text)) return Math.min(Number(text), 2 ** 31 - 1);
  if (!/^(?:\d{1,8}[smhdw]){1,5}$/i.test(text)) return undefined;
  return [...text.matchAll(/(\d+)([smhdw])/gi)].reduce(
    (sum, [, n, unit]) => sum + Number(n) * UNITS[unit!.toLowerCase()]!,
    0,
  );
}

const absolute = (name: string, origin: string): string =>
  (name === '@'
    ? origin
    : name.endsWith('.') && !name.endsWith('\\.')
      ? name.slice(0, -1) || '.'
      : origin
        ? `${name}.${origin}`
        : name
  ).toLowerCase();

/**
 * Reads a zone file. Names come out absolute, lower case, without a final dot; errors do not end the reading.
 * @param origin what relative names belong to until the file says otherwise
 */
export function readZoneFile(source: string, origin = ''): ZoneFile {
  const errors: ZoneFile['errors'] = [];
  const records: ZoneFileRecord[] = [];
  let current = origin.toLowerCase().replace(/\.$/, '');
  let ttl: number | undefined;
  let owner: string | undefined;
  for (const { at, blank, tokens } of entriesOf(source.replace(/^\ufeff/, ''), errors)) {
    const fault = (message: string): void => {
      if (errors.length < 100) errors.push({ line: at, message });
    };
    if (records.length >= MOST_RECORDS) {
      fault(`more than ${MOST_RECORDS} records; the rest was left out`);
      break;
    }
    const first = tokens[0]!;
    if (!blank && !first.quoted && first.text.startsWith('$')) {
      const directive = first.text.toUpperCase();
      const value = tokens[1]?.text ?? '';
      if (directive === '$ORIGIN' && value) current = absolute(value, current);
      else if (directive === '$TTL') {
        const read = readTtl(value);
        if (read === undefined) fault(`“${value.slice(0, 40)}” is no time to live`);
        else ttl = read;
      }
      // files of the reader's own disk are nothing that a zone file may open here
      else
        fault(
          directive === '$INCLUDE' ? '$INCLUDE is not followed' : `${directive.slice(0, 20)} is not known`,
        );
      continue;
    }
    const rest = [...tokens];
    if (!blank) owner = absolute(rest.shift()!.text, current);
    if (owner === undefined || owner === '') {
      fault('a record without a name');
      continue;
    }
    let own: number | undefined;
    // TTL and class in either order (RFC 1035 5.1)
    for (let n = 0; n < 2 && rest.length; n++) {
      const word = rest[0]!.text;
      if (/^(?:IN|CH|HS)$/i.test(word)) {
        if (!/^IN$/i.test(word)) {
          own = NaN;
        }
        rest.shift();
        continue;
      }
      const read = /^\d/.test(word) ? readTtl(word) : undefined;
      if (read === undefined) break;
      own = read;
      rest.shift();
    }
    const type = rest.shift()?.text.toUpperCase() ?? '';
    if (Number.isNaN(own)) {
      fault('only class IN is read');
      continue;
    }
    if (!TYPE.test(type)) {
      fault(`“${type.slice(0, 20)}” is no type of record`);
      continue;
    }
    if (!rest.length) {
      fault(`${type} without data`);
      continue;
    }
    const names = NAMES[type] ?? [];
    const value = rest
      .map((t, i) =>
        t.quoted || type === 'TXT'
          ? `"${t.text.replace(/(^|[^\\])"/g, '$1\\"')}"`
          : names.includes(i)
            ? absolute(t.text, current)
            : t.text,
      )
      .join(' ');
    records.push({
      name: owner,
      type,
      ...((own ?? ttl) === undefined ? {} : { ttl: own ?? ttl }),
      value: value.slice(0, 65_535),
    });
  }
  return { records, errors };
}

/** A name with its final dot. */
const dotted = (name: string): string => (name === '.' || name.endsWith('.') ? name : `${name}.`);
/** Nothing that comes from a name server may end a line, a comment or a quoted text early. */
const oneLine = (text: string): string =>
  [...text]
    .map((c) => {
      const code = c.codePointAt(0)!;
      return code < 0x20 || code === 0x7f ? `\\${String(code).padStart(3, '0')}` : c;
    })
    .join('');
const safeName = (name: string): string =>
  dotted(oneLine(name).replace(/[\s;()"$@]/g, (c) => `\\${c}`)) || '.';

/** Data of a record for a zone file: names dotted, texts quoted. */
export function zoneValue(type: string, value: string): string {
  if (type === 'TXT' || type === 'SPF')
    return oneLine(/^"/.test(value) ? value : `"${value.replace(/["\\]/g, '\\$&')}"`);
  const words = oneLine(value).split(' ');
  const names = NAMES[type] ?? [];
  if (type === 'CAA') {
    const [flags, tag, ...rest] = words;
    const text = rest.join(' ');
    return `${flags} ${tag} ${/^"/.test(text) ? text : `"${text}"`}`;
  }
  return words
    .map((w, i) => (names.includes(i) ? dotted(w) : w))
    .join(' ')
    .replace(/[;()]/g, '\\$&');
}

/** One record as a line. */
export function zoneLine(record: ZoneFileRecord): string {
  return `${safeName(record.name)} ${record.ttl === undefined ? '' : `${record.ttl} `}IN ${record.type} ${zoneValue(record.type, record.value)}`;
}

/** Records as a zone file. */
export function toZoneFile(records: readonly ZoneFileRecord[]): string {
  return records.map((r) => `${zoneLine(r)}\n`).join('');
}

const groupOf = (a: DnsAnswer): string =>
  `${a.role === 'resolver' ? 'Resolver' : a.role === 'parent' ? 'Server of the zone above' : 'Server of the zone'} ${a.serverName ? `${a.serverName} (${a.server})` : a.server}${a.unchecked ? ', checking disabled' : ''}`;

/** The DNS part of evidence: one block for each server, what it did not have as comments. */
export function dnsToZoneFile(dns: DnsEvidence): string {
  const groups = new Map<string, DnsAnswer[]>();
  for (const a of dns.answers) {
    const g = groupOf(a);
    const of = groups.get(g);
    if (of) of.push(a);
    else groups.set(g, [a]);
  }
  return [...groups]
    .map(([group, answers]) => {
      const lines = answers.flatMap((a) => {
        const asked = `${oneLine(a.name)} ${a.type}`;
        if (a.error || a.rcode !== 'NOERROR')
          return [`; ${asked}: ${a.rcode === 'NONE' ? oneLine(a.error ?? 'no answer') : a.rcode}`];
        if (!a.records.length) return [`; ${asked}: no such record`];
        return a.records.map(zoneLine);
      });
      return `; ${oneLine(group)}\n${[...new Set(lines)].join('\n')}\n`;
    })
    .join('\n');
}

/** Records as the answers of a resolver, which follows aliases; for evidence that has none of its own. */
export function answersFromZone(records: readonly ZoneFileRecord[], server: string): DnsAnswer[] {
  const sets = new Map<string, DnsAnswer>();
  const add = (name: string, type: string, r: ZoneFileRecord): void => {
    const key = `${name} ${type}`;
    let answer = sets.get(key);
    if (!answer)
      sets.set(
        key,
        (answer = {
          server,
          role: 'resolver',
          name,
          type,
          rcode: 'NOERROR',
          authoritative: false,
          authenticated: false,
          transport: 'udp',
          records: [],
          ms: 0,
        }),
      );
    if (!answer.records.some((x) => x.name === r.name && x.type === r.type && x.value === r.value))
      answer.records.push({ name: r.name, type: r.type, ttl: r.ttl ?? 3600, value: r.value });
  };
  for (const r of records) add(r.name, r.type, r);
  for (const alias of records.filter((r) => r.type === 'CNAME')) {
    let at: ZoneFileRecord | undefined = alias;
    for (let step = 0; at && step < 8; step++) {
      const target = at.value.toLowerCase();
      for (const type of ['A', 'AAAA']) {
        const found = records.filter((r) => r.name === target && r.type === type);
        if (found.length) {
          add(alias.name, type, alias);
          for (const r of found) add(alias.name, type, r);
        }
      }
      at = records.find((r) => r.name === target && r.type === 'CNAME');
    }
  }
  return [...sets.values()];
}
