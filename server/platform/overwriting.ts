/** Saving what somebody else has changed since it was loaded. */
import { fieldChanges } from '#core/compare/fields';
import { Conflict } from './errors';

const MOST = 10;

/**
 * @param from the version that a change was made on; none where nobody says
 * @param newest what is kept now
 * @param wanted what is to be saved
 * @throws Conflict with who saved what, and what differs
 */
export function refuseOverwriting(
  from: number | undefined,
  newest: { version: number; savedBy?: string | null; data: unknown },
  wanted: object,
): void {
  if (from === undefined || from === newest.version) return;
  const differs = fieldChanges(newest.data as object, wanted)
    .slice(0, MOST)
    .map((c) => c.field);
  throw new Conflict(
    `${newest.savedBy ?? 'Somebody'} saved version ${newest.version} in the meantime${differs.length ? `; it differs in ${differs.join(', ')}` : ''}. Look at it under Versions, then save again.`,
    { version: newest.version, differs },
  );
}
