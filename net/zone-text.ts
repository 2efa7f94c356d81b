/** A zone as lines of text (RFC 1035 5.1), as the practice net’s DNS operator shows and takes it. */
import type { ZoneRecord } from './dns-server';

const TYPES = new Set(['A', 'AAAA', 'CNAME', 'MX', 'TXT', 'CAA', 'SRV', 'DS']);
const MOST_LINES = 500;
const LONGEST_TTL = 2_147_483_647;

const quoted = (text: string): string =>
  (text.match(/[\s\S]{1,255}/g) ?? [''])
    .map((part) => `"${part.replace(/[\\"]/g, (c) => `\\${c}`)}"`)
    .join(' ');

const valueText = ({ type, value }: ZoneRecord): string => {
  if (type === 'TXT') return quoted(value);
  if (type === 'CAA')
    return value.replace(/^(\d+ \w+) (.*)$/, (_, head: string, rest: string) => `${head} "${rest}"`);
  return /^(CNAME|MX)$/.test(type) && !value.endsWith('.') ? `${value}.` : value;
};

export const zoneText = (records: readonly ZoneRecord[]): string =>
  records.map((r) => `${r.name}. ${r.ttl} IN ${r.type} ${valueText(r)}`).join('\n');

/** The strings of a text, put together; what is not in quotes counts as it stands. */
const unquoted = (text: string): string => {
  const strings = [...text.matchAll(/"((?:[^"\\]|\\.)*)"/g)].map((m) => m[1]!.replace(/\\(.)/g, '$1'));
  return strings.length ? strings.join('') : text;
};

/** @throws RangeError for a line that is none, a name outside of the zone, or a CNAME beside other data */
export function parseZone(text: string, domain: string): ZoneRecord[] {
  const lines = text
    .split('\n')
    .map((line) => line.trim())
    .filter((line) => line && !line.startsWith(';'));
  if (lines.length > MOST_LINES) throw new RangeError(`A zone has at most ${MOST_LINES} lines here.`);
  const records = lines.map((line) => parseLine(line, domain));
  for (const { name, type } of records)
    if (type === 'CNAME' && records.some((r) => r.name === name && r.type !== 'CNAME'))
      throw new RangeError(`${name} has a CNAME beside other records (RFC 1034 3.6.2).`);
  return records;
}

const VALUES: Record<string, (rest: string) => string> = {
  TXT: unquoted,
  CAA: (rest) => rest.replaceAll('"', ''),
  // a null MX (RFC 7505)
  MX: (rest) => (/^0\s+\.$/.test(rest) ? '0 .' : rest.replace(/\.$/, '')),
};

/** @throws RangeError */
function parseLine(line: string, domain: string): ZoneRecord {
  const [, owner = '', ttl = '3600', type = '', rest = ''] =
    /^(\S+)\s+(?:(\d+)\s+)?(?:IN\s+)?([A-Z]+)\s+(.*)$/i.exec(line) ?? [];
  const name = owner.toLowerCase().replace(/\.$/, '');
  const kind = type.toUpperCase();
  if (!TYPES.has(kind)) throw new RangeError(`This line is no record: ${line.slice(0, 80)}`);
  if (name !== domain && !name.endsWith(`.${domain}`))
    throw new RangeError(`${name} is not in the zone ${domain}.`);
  if (Number(ttl) > LONGEST_TTL) throw new RangeError(`The TTL of ${name} is too long.`);
  const valueOf = VALUES[kind] ?? ((value: string) => value.replace(/\.$/, ''));
  return { name, type: kind, ttl: Number(ttl), value: valueOf(rest) };
}
