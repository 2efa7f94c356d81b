/** How long the steps of a launch waited: from when each could be begun until it was done. Milliseconds. */
import type { LaunchTemplate } from '#core/facts/launch';

export interface StepWait {
  step: string;
  title: string;
  /** From the last of what it rests on until it was done. */
  ms: number;
}

/**
 * @param doneAt when steps were done last; those that were not are left out
 * @returns the longest first
 */
export function waitsOf({ steps }: LaunchTemplate, doneAt: ReadonlyMap<string, number>): StepWait[] {
  return steps
    .flatMap(({ id, title, after }): StepWait[] => {
      const done = doneAt.get(id);
      const before = after.flatMap((other) => doneAt.get(other) ?? []);
      if (done === undefined || !before.length) return [];
      const ms = done - Math.max(...before);
      return ms > 0 ? [{ step: id, title, ms }] : [];
    })
    .sort((a, b) => b.ms - a.ms);
}
