/** Taking what was found into the brief: what a finding proposes, and the brief that follows. */
import type { Brief, BriefField } from './brief';

/** `set` replaces the field, `add` appends to its list, `swap` replaces one entry of its list by another. */
export interface Adoption {
  field: BriefField;
  how: 'set' | 'add' | 'swap';
  value: unknown;
  instead?: unknown;
}

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
/** An entry without what the found one does not say, such as a TTL. */
const like = (entry: unknown, pattern: unknown): boolean =>
  typeof entry === 'object' && entry !== null && typeof pattern === 'object' && pattern !== null
    ? Object.entries(pattern).every(([k, v]) => same((entry as Record<string, unknown>)[k], v))
    : same(entry, pattern);

/** @returns the change to the brief, with any reason for not wanting the field taken back */
export function applyAdoption(brief: Brief, adoption: Adoption): Partial<Brief> {
  const before = brief[adoption.field] as unknown;
  const list = Array.isArray(before) ? (before as unknown[]) : [];
  const value =
    adoption.how === 'set'
      ? adoption.value
      : adoption.how === 'add'
        ? list.some((e) => like(e, adoption.value))
          ? list
          : [...list, adoption.value]
        : list.some((e) => like(e, adoption.instead))
          ? list.map((e) =>
              like(e, adoption.instead) ? { ...(e as object), ...(adoption.value as object) } : e,
            )
          : [...list, adoption.value];
  const { [adoption.field]: _taken, ...notWanted } = brief.notWanted ?? {};
  return {
    [adoption.field]: value,
    ...(brief.notWanted?.[adoption.field] !== undefined ? { notWanted } : {}),
  };
}
