/** SVCB and HTTPS records (RFC 9460): from the wire, in presentation form, and in one spelling to compare. */

/** Names of SvcParamKeys (RFC 9460 14.3.2; RFC 9461 dohpath). */
const KEYS: readonly string[] = [
  'mandatory',
  'alpn',
  'no-default-alpn',
  'port',
  'ipv4hint',
  'ech',
  'ipv6hint',
  'dohpath',
];
const keyName = (key: number): string => KEYS[key] ?? `key${key}`;
const keyNumber = (name: string): number => {
  const known = KEYS.indexOf(name);
  return known >= 0 ? known : Number(/^key(\d{1,5})$/.exec(name)?.[1] ?? NaN);
};

const octet = (b: number): string =>
  b < 0x21 || b > 0x7e
    ? `\\${String(b).padStart(3, '0')}`
    : b === 0x22 || b === 0x5c
      ? `\\${String.fromCharCode(b)}`
      : String.fromCharCode(b);
const text = (bytes: Uint8Array): string => Array.from(bytes, octet).join('');
/** Within a list a comma that is part of a value is escaped, and the backslash before it again (A.1). */
const listed = (bytes: Uint8Array): string =>
  Array.from(bytes, (b) => (b === 0x2c ? '\\\\,' : b === 0x5c ? '\\\\\\\\' : octet(b))).join('');

const word = (bytes: Uint8Array, at: number): number => (bytes[at]! << 8) | bytes[at + 1]!;

/** Several values of one width. */
function* pieces(bytes: Uint8Array, width: number): Generator<Uint8Array> {
  if (!bytes.length || bytes.length % width) throw new RangeError('a list that does not fit');
  for (let at = 0; at < bytes.length; at += width) yield bytes.subarray(at, at + width);
}

function* protocols(bytes: Uint8Array): Generator<Uint8Array> {
  for (let at = 0; at < bytes.length;) {
    const end = at + 1 + bytes[at]!;
    if (end > bytes.length || !bytes[at]) throw new RangeError('a list that does not fit');
    yield bytes.subarray(at + 1, end);
    at = end;
  }
}

const ip4 = (bytes: Uint8Array): string => bytes.join('.');
function ip6(bytes: Uint8Array): string {
  const groups = [...pieces(bytes, 2)].map((p) => word(p, 0).toString(16));
  return new URL(`http://[${groups.join(':')}]/`).hostname.slice(1, -1);
}
const base64 = (bytes: Uint8Array): string => btoa(String.fromCharCode(...bytes));

/** How the value of a parameter is written (RFC 9460 7, 8 and 2.1). */
const VALUES: Record<string, (bytes: Uint8Array) => string> = {
  mandatory: (b) => [...pieces(b, 2)].map((p) => keyName(word(p, 0))).join(','),
  alpn: (b) => [...protocols(b)].map(listed).join(','),
  port: (b) => (b.length === 2 ? String(word(b, 0)) : text(b)),
  ipv4hint: (b) => [...pieces(b, 4)].map(ip4).join(','),
  ipv6hint: (b) => [...pieces(b, 16)].map(ip6).join(','),
  ech: base64,
};

function parameter(key: number, bytes: Uint8Array): string {
  const name = keyName(key);
  if (!bytes.length) return name;
  const value = (VALUES[name] ?? text)(bytes);
  return /[\s;()]/.test(value) ? `${name}="${value}"` : `${name}=${value}`;
}

/**
 * The data of a record in presentation form.
 * @param data RDATA as it came (RFC 9460 2.2)
 * @returns the generic form of RFC 3597 5 where it cannot be read
 */
export function presentService(data: Uint8Array): string {
  try {
    return present(data);
  } catch {
    const hex = Array.from(data, (b) => b.toString(16).padStart(2, '0')).join('');
    return `\\# ${data.length} ${hex}`;
  }
}

function present(data: Uint8Array): string {
  if (data.length < 3) throw new RangeError('too short');
  const labels: string[] = [];
  let at = 2;
  while (data[at]) {
    const end = at + 1 + data[at]!;
    if (end >= data.length) throw new RangeError('a name that does not end');
    labels.push(text(data.subarray(at + 1, end)));
    at = end;
  }
  const words = [String(word(data, 0)), labels.join('.') || '.'];
  for (at++; at < data.length;) {
    const end = at + 4 + word(data, at + 2);
    if (at + 4 > data.length || end > data.length) throw new RangeError('a parameter that does not fit');
    words.push(parameter(word(data, at), data.subarray(at + 4, end)));
    at = end;
  }
  return words.join(' ');
}

/** The words of a line: white space ends one unless it stands in quotes. */
const WORDS = /(?:[^\s"\\]|\\.|"(?:[^"\\]|\\.)*")+/g;
/** A value without quotes and needless escapes. */
const plainValue = (value: string): string =>
  value
    .replace(/^"([\s\S]*)"$/, '$1')
    .replace(/\\(\d{3})/g, (all, n: string) =>
      Number(n) > 0x20 && Number(n) < 0x7f ? String.fromCharCode(Number(n)) : all,
    );

/** Addresses as they are compared. */
function plainHint(value: string): string {
  return value
    .split(',')
    .map((address) => {
      try {
        return address.includes(':') ? new URL(`http://[${address}]/`).hostname.slice(1, -1) : address;
      } catch {
        return address;
      }
    })
    .sort()
    .join(',');
}

/** The bytes of the generic form, alone or after priority and name, as older evidence has it. */
function generic(value: string): string {
  const whole = /^\\#\s+\d+\s+([0-9a-f\s]+)$/i.exec(value);
  const rest = /^(\d+)\s+(\S+)\s+\\#\s+\d+\s+([0-9a-f\s]+)$/i.exec(value);
  const hex = (whole?.[1] ?? rest?.[3])?.replace(/\s+/g, '');
  if (!hex) return value;
  const bytes = Uint8Array.from(hex.match(/../g) ?? [], (b) => parseInt(b, 16));
  if (whole) return presentService(bytes);
  const parameters = presentService(Uint8Array.from([0, 1, 0, ...bytes]));
  return parameters.startsWith('\\#') ? value : `${rest![1]} ${rest![2]} ${parameters.slice('1 . '.length)}`;
}

/**
 * One spelling of a record's data: parameters in the order of their keys, without quotes, hints sorted.
 * @param nameOf how names are spelt
 */
export function canonicalService(value: string, nameOf: (name: string) => string): string {
  const [priority = '', target = '', ...rest] = generic(value.trim()).match(WORDS) ?? [];
  const parameters = rest.map((word): [number, string] => {
    const at = word.indexOf('=');
    const name = (at < 0 ? word : word.slice(0, at)).toLowerCase();
    const key = keyNumber(name);
    const known = Number.isNaN(key) ? name : keyName(key);
    const given = at < 0 ? '' : plainValue(word.slice(at + 1));
    const shown = known.endsWith('hint') ? plainHint(given) : given;
    return [key, shown ? `${known}=${shown}` : known];
  });
  parameters.sort((a, b) => a[0] - b[0]);
  return [Number(priority), target === '.' ? '.' : nameOf(target), ...parameters.map(([, p]) => p)].join(' ');
}
