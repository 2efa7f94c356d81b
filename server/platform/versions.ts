/** The versions of a document, a window at a time: who saved when, and what it changed. */
import { fieldChanges, type Version } from '#core/compare/fields';

const PER_WINDOW = 10;
/** So many are read: one more than is shown, to say what the last of them changed. */
export const VERSIONS_READ = PER_WINDOW + 1;

interface Kept<D> {
  version: number;
  savedBy?: string | null;
  savedAt: Date;
  data: D;
}

/** @param kept the newest first @returns by which version the next window goes on, null at the first of all */
export function versionsWindow<D extends object>(
  kept: readonly Kept<D>[],
): { rows: Version<D>[]; next: number | null } {
  const rows = kept.slice(0, PER_WINDOW).map(({ version, savedBy = null, savedAt, data }, i) => ({
    version,
    savedBy,
    savedAt: savedAt.toISOString(),
    changes: fieldChanges(kept[i + 1]?.data ?? {}, data),
    data,
  }));
  return { rows, next: kept.length > PER_WINDOW ? rows.at(-1)!.version : null };
}
