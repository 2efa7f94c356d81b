/** What is done every so often, by one process of all. */
import { isDue } from './keeping';

export interface Recurring {
  name: string;
  seconds: number;
  work(): Promise<unknown>;
}

/** So often it is asked whether something is due. */
const LOOK_MS = 1000;

/** @returns how to end it */
export function startTicking(recurring: readonly Recurring[]): () => void {
  let timer: NodeJS.Timeout | undefined;
  let ended = false;
  // no process asks for what it has asked for itself just now
  const askedAt = new Map<string, number>();
  const look = async (): Promise<void> => {
    for (const { name, seconds, work } of recurring) {
      if (performance.now() - (askedAt.get(name) ?? -Infinity) < seconds * 1000) continue;
      try {
        const due = await isDue(name, seconds);
        askedAt.set(name, performance.now() - (due ? 0 : Math.max(0, seconds * 1000 - LOOK_MS)));
        if (due) await work();
      } catch (error) {
        console.error(`${name} was not begun: ${(error as Error).message}`);
      }
    }
  };
  const again = (): void => {
    timer = setTimeout(() => {
      void look().finally(() => {
        if (!ended) again();
      });
    }, LOOK_MS);
    timer.unref();
  };
  again();
  return () => {
    ended = true;
    clearTimeout(timer);
  };
}
