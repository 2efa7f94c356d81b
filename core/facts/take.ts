/** Taking what was found into the brief: what a finding proposes, and the brief that follows. */
import type { Brief, BriefField } from './brief';

/** `set` replaces the field, `add` appends to its list, `swap` replaces one entry of its list by another. */
export interface Take {
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
export function applyTake(brief: Brief, take: Take): Partial<Brief> {
  const before = brief[take.field] as unknown;
  const list = Array.isArray(before) ? (before as unknown[]) : [];
  const value =
    take.how === 'set'
      ? take.value
      : take.how === 'add'
        ? list.some((e) => like(e, take.value))
          ? list
          : [...list, take.value]
        : list.some((e) => like(e, take.instead))
          ? list.map((e) => (like(e, take.instead) ? { ...(e as object), ...(take.value as object) } : e))
          : [...list, take.value];
  const { [take.field]: _taken, ...notWanted } = brief.notWanted ?? {};
  return { [take.field]: value, ...(brief.notWanted?.[take.field] !== undefined ? { notWanted } : {}) };
}
