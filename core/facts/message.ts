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

/** Whether a code is that of a sentence, or of one in its data. */
export const hasCode = (said: Said, code: string): boolean =>
  said.code === code ||
  Object.values(said.data ?? {})
    .flat()
    .some((value) => isSaid(value) && hasCode(value, code));

/** Whether two say the same: one code, and the same of all that both have data of. */
export function isSame(a: Said, b: Said): boolean {
  if (a.code !== b.code) return false;
  return Object.entries(a.data ?? {}).every(([name, value]) => {
    const other = b.data?.[name];
    return value === undefined || other === undefined || isSameDatum(value, other);
  });
}

function isSameDatum(a: Datum, b: Datum): boolean {
  if (isSaid(a) && isSaid(b)) return isSame(a, b);
  if (Array.isArray(a) && Array.isArray(b))
    return a.length === b.length && a.every((value, i) => isSameDatum(value as Datum, b[i] as Datum));
  return a === b;
}
