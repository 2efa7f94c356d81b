/**
 * What is said of a finding or a place: a code with its data. Sentences are made from them at the edge, by
 * language; nothing compares or parses a sentence.
 */

/** What a sentence is made with: text and numbers, another sentence, or a list of either. */
export type Datum = string | number | Said | readonly (string | Said)[] | undefined;

export interface Said {
  /** Stable: acceptances rest on it. */
  code: string;
  data?: Readonly<Record<string, Datum>>;
}

/** The code of what stands as it was found: a text of the site, an address, an error of the network. */
export const AS_IT_CAME = 'as-it-came';

/** What was found, as it came. @returns undefined where there is nothing */
export function seen(value: string): Said;
export function seen(value: string | undefined): Said | undefined;
export function seen(value: string | undefined): Said | undefined {
  return value === undefined ? undefined : { code: AS_IT_CAME, data: { value } };
}

export const isSaid = (value: unknown): value is Said =>
  typeof value === 'object' && value !== null && typeof (value as Said).code === 'string';

/** The same key for the same code with the same data, whatever the order of their names. */
export function keyOf({ code, data }: Said): string {
  const entries = Object.entries(data ?? {})
    .filter(([, value]) => value !== undefined)
    .sort(([a], [b]) => (a < b ? -1 : 1));
  return JSON.stringify([code, ...entries.map(([name, value]) => [name, keyOfDatum(value)])]);
}

// what was read back from a sentence has texts where a check has numbers
function keyOfDatum(value: Datum): unknown {
  if (isSaid(value)) return keyOf(value);
  return Array.isArray(value) ? value.map(keyOfDatum) : String(value);
}

/** Whether two say the same: one code, and the same of all that both have data of. */
export function isSame(a: Said, b: Said): boolean {
  if (a.code !== b.code) return false;
  const [one, other] = [a.data ?? {}, b.data ?? {}];
  return Object.keys(one).every((name) => {
    const [x, y] = [one[name], other[name]];
    return (
      x === undefined ||
      y === undefined ||
      keyOf({ code: '', data: { x } }) === keyOf({ code: '', data: { x: y } })
    );
  });
}
