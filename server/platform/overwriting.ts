/**
 * One way for all that is saved from a screen: it says from which version it came, and where somebody has saved
 * since, it is refused with what stands there now, so that the screen can join both.
 */
import { fieldChanges } from '#core/compare/fields';
import type { Overtaken } from '#core/compare/joining';
import { Conflict } from './errors';

const MOST_NAMED = 10;

/**
 * @param from the version that a change was made on; none where nobody says
 * @param newest what is kept now
 * @param wanted what is to be saved
 * @throws Conflict with Overtaken
 */
export function refuseOverwriting(
  from: number | undefined,
  { version, savedBy = null, data }: { version: number; savedBy?: string | null; data: unknown },
  wanted: object,
): void {
  if (from === undefined || from === version) return;
  const now = data as object;
  const differs = fieldChanges(now, wanted);
  const fields = differs.slice(0, MOST_NAMED).map((c) => c.field);
  const what = fields.length ? `; it differs in ${fields.join(', ')}` : '';
  const overtaken: Overtaken = { version, savedBy, now, differs };
  throw new Conflict(
    `${savedBy ?? 'Somebody'} saved version ${version} in the meantime${what}. Join both, or look at it under Versions.`,
    overtaken,
  );
}
