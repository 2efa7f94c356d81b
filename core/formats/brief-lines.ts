/** Records and tokens as lines of text, the way people paste them. */
import { RECORD_TYPES, type ExpectedRecord, type ExpectedToken } from '#core/facts/brief';

export interface Lines<T> {
  values: T[];
  faults: string[];
}

/**
 * Reads "name [ttl] [IN] type value", a record a line; `;` begins a comment outside quotes (RFC 1035 5.1).
 */
export function readRecordLines(text: string): Lines<ExpectedRecord> {
  const out: Lines<ExpectedRecord> = { values: [], faults: [] };
  text.split('\n').forEach((full, i) => {
    const line = full.replace(/("[^"]*")|;.*$/g, (_, quoted?: string) => quoted ?? '').trim();
    if (!line) return;
    const words = line.split(/\s+/);
    const name = words.shift()!.replace(/\.$/, '');
    let ttl: number | undefined;
    while (words.length && (/^\d+$/.test(words[0]!) || /^in$/i.test(words[0]!))) {
      const w = words.shift()!;
      if (/^\d+$/.test(w)) ttl = Number(w);
    }
    const type = (words.shift() ?? '').toUpperCase();
    const value = line.slice(line.toUpperCase().indexOf(` ${type}`, name.length) + type.length + 1).trim();
    if (!RECORD_TYPES.includes(type)) {
      out.faults.push(
        `Line ${i + 1}: “${type || line}” is no record type. Write: name type value, for instance “www.kites.example CNAME kites.example”.`,
      );
      return;
    }
    if (!value) {
      out.faults.push(`Line ${i + 1}: the value is missing.`);
      return;
    }
    const plain = type === 'TXT' ? value.replace(/^"(.*)"$/, '$1') : value.replace(/\.$/, '');
    out.values.push({ name, type, value: plain, ...(ttl !== undefined ? { ttl } : {}) });
  });
  return out;
}

export function writeRecordLines(records: readonly ExpectedRecord[]): string {
  return records
    .map((r) => `${r.name} ${r.ttl !== undefined ? `${r.ttl} ` : ''}${r.type} ${r.value}`)
    .join('\n');
}

/** Reads "place kind value", a token a line, the place being meta, txt or file. */
export function readTokenLines(text: string): Lines<ExpectedToken> {
  const out: Lines<ExpectedToken> = { values: [], faults: [] };
  text.split('\n').forEach((full, i) => {
    const words = full.trim().split(/\s+/);
    if (!words[0]) return;
    const [place, kind, ...value] = words;
    if (!['meta', 'txt', 'file'].includes(place.toLowerCase()) || !kind || !value.length) {
      out.faults.push(
        `Line ${i + 1}: write place, kind and value, for instance “meta sallow-site-verification abc123”; the place is meta, txt or file.`,
      );
      return;
    }
    out.values.push({ place: place.toLowerCase() as 'meta', kind, value: value.join(' ') });
  });
  return out;
}

export function writeTokenLines(tokens: readonly ExpectedToken[]): string {
  return tokens.map((t) => `${t.place} ${t.kind} ${t.value}`).join('\n');
}

/** Splits "a, b c" at commas and line ends. */
export function readList(text: string): string[] {
  return [
    ...new Set(
      text
        .split(/[,\n]/)
        .map((s) => s.trim())
        .filter(Boolean),
    ),
  ];
}
