/** MTA-STS (RFC 8461) and reports of TLS failures (RFC 8460): their records and the policy file. */

/** A record or policy as it is read; errors are what makes a sender take it for none. */
export interface StsRecord {
  id: string;
  errors: string[];
}

const fieldsOf = (text: string): [name: string, value: string][] =>
  text
    .split(';')
    .map((part) => part.trim())
    .filter(Boolean)
    .map((part) => {
      const at = part.indexOf('=');
      return at < 0 ? [part, ''] : [part.slice(0, at).trim(), part.slice(at + 1).trim()];
    });

/** Whether a TXT value is an MTA-STS record: the version comes first, exactly (RFC 8461 3.1). */
export const isSts = (text: string): boolean => /^v=STSv1\s*(?:;|$)/.test(text);

export function parseSts(text: string): StsRecord {
  const id = fieldsOf(text).find(([name]) => name === 'id')?.[1] ?? '';
  return { id, errors: /^[a-z0-9]{1,32}$/i.test(id) ? [] : [`id=${id} is not 1 to 32 letters and digits`] };
}

export interface StsPolicy {
  mode: string;
  mx: string[];
  errors: string[];
}

const MODES = new Set(['enforce', 'testing', 'none']);
/** RFC 8461 3.2: about a year. */
const LONGEST_AGE = 31_557_600;
const MOST_LINES = 500;
const MX_PATTERN = /^(?:\*\.)?(?:[a-z0-9_](?:[a-z0-9_-]{0,61}[a-z0-9_])?\.)+[a-z0-9-]{1,63}$/i;

/** What is wrong with the keys of a policy that may stand there once. */
function keyFaults(keys: ReadonlyMap<string, string>): string[] {
  const fault = (key: string, isSound: (value: string) => boolean): string[] => {
    const value = keys.get(key);
    if (value === undefined) return [`${key} is missing`];
    return isSound(value) ? [] : [`${key} ${value.slice(0, 100)}`];
  };
  return [
    ...fault('version', (v) => v === 'STSv1'),
    ...fault('mode', (v) => MODES.has(v)),
    ...fault('max_age', (v) => /^\d{1,10}$/.test(v) && Number(v) <= LONGEST_AGE),
  ];
}

/** Reads a policy file (RFC 8461 3.2): lines of a key and a value; unknown keys are passed over. */
export function parseStsPolicy(text: string): StsPolicy {
  const mx: string[] = [];
  const keys = new Map<string, string>();
  for (const line of text.split(/\r?\n/).slice(0, MOST_LINES)) {
    const [, key, value] = /^\s*([a-z0-9_.-]+)\s*:\s*(.*?)\s*$/i.exec(line) ?? [];
    if (key === undefined) continue;
    if (key === 'mx') mx.push(value!);
    // of a key that stands there twice the first counts
    else if (!keys.has(key)) keys.set(key, value!);
  }
  const errors = keyFaults(keys);
  const mode = keys.get('mode') ?? '';
  if (!mx.length && mode !== 'none') errors.push('mx is missing');
  const bad = mx.find((one) => !MX_PATTERN.test(one));
  if (bad !== undefined) errors.push(`mx ${bad.slice(0, 100)}`);
  return { mode, mx, errors };
}

/** Whether a policy names an exchanger; a wildcard stands for exactly one label (RFC 8461 4.1). */
export function coversExchanger(patterns: readonly string[], exchanger: string): boolean {
  const name = exchanger.toLowerCase().replace(/\.$/, '');
  return patterns.some((given) => {
    const pattern = given.toLowerCase().replace(/\.$/, '');
    return pattern.startsWith('*.')
      ? name.slice(name.indexOf('.') + 1) === pattern.slice(2) && name.includes('.')
      : name === pattern;
  });
}

export const isTlsReports = (text: string): boolean => /^v=TLSRPTv1\s*(?:;|$)/.test(text);

/** Where failures are reported to (RFC 8460 3); errors are what makes the record useless. */
export function parseTlsReports(text: string): { rua: string[]; errors: string[] } {
  const given = fieldsOf(text).find(([name]) => name === 'rua')?.[1];
  const rua = (given ?? '')
    .split(',')
    .map((uri) => uri.trim())
    .filter(Boolean);
  const bad = rua.find(
    (uri) => !/^mailto:[^@\s]+@[^@\s]+\.[^@\s]+$/i.test(uri) && !/^https:\/\/[^\s/]+\S*$/i.test(uri),
  );
  const errors = [
    ...(rua.length ? [] : ['rua is missing']),
    ...(bad === undefined ? [] : [`rua ${bad.slice(0, 100)} is neither mailto: nor https:`]),
  ];
  return { rua, errors };
}
