/** What changed between two documents of fields: two versions of a brief, a host profile. */
export interface FieldChange {
  field: string;
  kind: 'added' | 'changed' | 'removed';
  from?: string;
  to?: string;
}

/** One version of a document with what it changed. */
export interface Version<D> {
  version: number;
  savedBy: string | null;
  savedAt: string;
  changes: FieldChange[];
  data: D;
}

/** A value in one line, cut. */
export const shown = (value: unknown): string => {
  const text = Array.isArray(value)
    ? value
        .map((v) => (typeof v === 'object' && v !== null ? Object.values(v as object).join(' ') : String(v)))
        .join(', ')
    : typeof value === 'object' && value !== null
      ? Object.entries(value)
          .map(([k, v]) => `${k}: ${typeof v === 'object' ? JSON.stringify(v) : String(v)}`)
          .join('; ')
      : String(value);
  return text.length > 300 ? `${text.slice(0, 300)}…` : text;
};

/** Whether a field is left blank: nothing, or an empty text, list or object. */
export const blank = (value: unknown): boolean =>
  value === undefined ||
  value === null ||
  value === '' ||
  (typeof value === 'object' && Object.keys(value).length === 0);

/** A value as text that is the same whatever the order of its keys: who saves it may build it anew. */
export const inOneOrder = (value: unknown): string | undefined =>
  JSON.stringify(value, (_key, part: unknown) =>
    typeof part === 'object' && part !== null && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([x], [y]) => (x < y ? -1 : 1)))
      : part,
  );

/** @returns changes in the order of the fields, those of the older document first */
export function fieldChanges(before: object, after: object): FieldChange[] {
  const a = before as Record<string, unknown>,
    b = after as Record<string, unknown>;
  const out: FieldChange[] = [];
  for (const field of new Set([...Object.keys(a), ...Object.keys(b)])) {
    if (inOneOrder(a[field]) === inOneOrder(b[field])) continue;
    if (blank(a[field]) && blank(b[field])) continue;
    if (blank(a[field])) out.push({ field, kind: 'added', to: shown(b[field]) });
    else if (blank(b[field])) out.push({ field, kind: 'removed', from: shown(a[field]) });
    else out.push({ field, kind: 'changed', from: shown(a[field]), to: shown(b[field]) });
  }
  return out;
}
