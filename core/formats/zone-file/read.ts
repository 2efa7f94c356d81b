/**
 * Reading zone files in the master format of RFC 1035 section 5 (with $TTL of RFC 2308 and the unknown types
 * of RFC 3597).
 */
import { NAME_WORDS, type ZoneFileRecord } from './records';
import { entriesOf, type Entry, type Word, type ZoneFault } from './words';

export interface ZoneFile {
  records: ZoneFileRecord[];
  /** What could not be read, each with its line. */
  errors: ZoneFault[];
}

const MOST_RECORDS = 20_000;
const MOST_FAULTS = 100;
const LONGEST_VALUE = 65_535;
const UNITS: Record<string, number> = { s: 1, m: 60, h: 3600, d: 86_400, w: 604_800 };
const TYPE = /^(?:[A-Z][A-Z0-9-]*|TYPE\d+)$/;

/** "3600" or "1h30m" in seconds; undefined when it is none. */
export function readTtl(text: string): number | undefined {
  if (/^\d{1,10}$/.test(text)) return Math.min(Number(text), 2 ** 31 - 1);
  if (!/^(?:\d{1,8}[smhdw]){1,5}$/i.test(text)) return undefined;
  return [...text.matchAll(/(\d+)([smhdw])/gi)].reduce(
    (sum, [, n, unit]) => sum + Number(n) * UNITS[unit!.toLowerCase()]!,
    0,
  );
}

/** A name without its final dot, in lower case; relative ones below the origin. */
function absolute(name: string, origin: string): string {
  if (name === '@') return origin.toLowerCase();
  if (name.endsWith('.') && !name.endsWith('\\.')) return (name.slice(0, -1) || '.').toLowerCase();
  return (origin ? `${name}.${origin}` : name).toLowerCase();
}

/** What stands before a record's type: time to live and class, in either order (RFC 1035 5.1). */
function takeTtlAndClass(words: Word[]): { ttl?: number; isForeign: boolean } {
  let ttl: number | undefined;
  let isForeign = false;
  for (let n = 0; n < 2 && words.length; n++) {
    const word = words[0]!.text;
    const read = /^\d/.test(word) ? readTtl(word) : undefined;
    if (/^(?:IN|CH|HS)$/i.test(word)) isForeign ||= !/^IN$/i.test(word);
    else if (read === undefined) break;
    else ttl = read;
    words.shift();
  }
  return { ...(ttl === undefined ? {} : { ttl }), isForeign };
}

/** The data of a record: texts quoted, names absolute, the rest as it stands. */
function valueOf(type: string, words: readonly Word[], origin: string): string {
  const names = NAME_WORDS[type] ?? [];
  return words
    .map(({ text, quoted }, i) => {
      if (quoted || type === 'TXT') return `"${text.replace(/(^|[^\\])"/g, '$1\\"')}"`;
      return names.includes(i) ? absolute(text, origin) : text;
    })
    .join(' ')
    .slice(0, LONGEST_VALUE);
}

/** What an entry leaves behind for those that follow. */
class ZoneReader {
  readonly records: ZoneFileRecord[] = [];
  readonly errors: ZoneFault[] = [];
  private origin: string;
  private ttl: number | undefined;
  private owner: string | undefined;

  constructor(origin: string) {
    this.origin = origin.toLowerCase().replace(/\.$/, '');
  }

  fault(line: number, message: string): void {
    if (this.errors.length < MOST_FAULTS) this.errors.push({ line, message });
  }

  entry({ at, blank, words }: Entry): void {
    const first = words[0]!;
    const fault =
      !blank && !first.quoted && first.text.startsWith('$')
        ? this.directive(words)
        : this.record(blank, words);
    if (fault !== undefined) this.fault(at, fault);
  }

  /** @returns what is wrong with it */
  private directive(words: readonly Word[]): string | undefined {
    const name = words[0]!.text.toUpperCase();
    const value = words[1]?.text ?? '';
    if (name === '$ORIGIN' && value) {
      this.origin = absolute(value, this.origin);
      return undefined;
    }
    if (name === '$TTL') {
      const read = readTtl(value);
      if (read === undefined) return `“${value.slice(0, 40)}” is no time to live`;
      this.ttl = read;
      return undefined;
    }
    // files of the reader's own disk are nothing that a zone file may open here
    return name === '$INCLUDE' ? '$INCLUDE is not followed' : `${name.slice(0, 20)} is not known`;
  }

  /** @returns what is wrong with it */
  private record(blank: boolean, all: readonly Word[]): string | undefined {
    const words = [...all];
    if (!blank) this.owner = absolute(words.shift()!.text, this.origin);
    const name = this.owner;
    if (!name) return 'a record without a name';
    const { ttl = this.ttl, isForeign } = takeTtlAndClass(words);
    const type = words.shift()?.text.toUpperCase() ?? '';
    if (isForeign) return 'only class IN is read';
    if (!TYPE.test(type)) return `“${type.slice(0, 20)}” is no type of record`;
    if (!words.length) return `${type} without data`;
    const value = valueOf(type, words, this.origin);
    this.records.push({ name, type, ...(ttl === undefined ? {} : { ttl }), value });
    return undefined;
  }
}

/**
 * Reads a zone file. Names come out absolute, lower case, without a final dot; errors do not end the reading.
 * @param origin what relative names belong to until the file says otherwise
 */
export function readZoneFile(source: string, origin = ''): ZoneFile {
  const reader = new ZoneReader(origin);
  for (const entry of entriesOf(source.replace(/^\ufeff/, ''), reader.errors)) {
    if (reader.records.length >= MOST_RECORDS) {
      reader.fault(entry.at, `more than ${MOST_RECORDS} records; the rest was left out`);
      break;
    }
    reader.entry(entry);
  }
  return { records: reader.records, errors: reader.errors };
}
