/** Records as lines of a zone file. */
import type { DnsAnswer, DnsEvidence } from '#core/facts/evidence';
import { NAME_WORDS, type ZoneFileRecord } from './records';

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

/** A string of a text holds 255 octets (RFC 1035 3.3); a character takes at most four (RFC 3629 3). */
const STRING_OCTETS = 255;
const CHARACTER_OCTETS = 4;

/** A text as quoted strings, of which none is too long. */
function quotedStrings(text: string): string {
  const isAscii = /^[\x00-\x7f]*$/.test(text);
  const most = isAscii ? STRING_OCTETS : Math.floor(STRING_OCTETS / CHARACTER_OCTETS);
  const characters = [...text];
  const strings: string[] = [];
  for (let i = 0; i < characters.length; i += most) strings.push(characters.slice(i, i + most).join(''));
  return (strings.length ? strings : ['']).map((s) => `"${s.replace(/["\\]/g, '\\$&')}"`).join(' ');
}

/** Data of a record for a zone file: names dotted, texts quoted. */
function zoneValue(type: string, value: string): string {
  if (type === 'TXT' || type === 'SPF') return oneLine(/^"/.test(value) ? value : quotedStrings(value));
  const words = oneLine(value).split(' ');
  const names = NAME_WORDS[type] ?? [];
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

/** One record as a line to paste, kept for an hour where nothing else is said. */
export const hourLine = (record: ZoneFileRecord): string => zoneLine({ ...record, ttl: record.ttl ?? 3600 });

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
