/** What is done every so often, by one process of all. */
import { isDue } from './due';

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
  /** What this process has done itself just now need not be asked for. */
  const notBefore = new Map<string, number>();
  const look = async (): Promise<void> => {
    for (const { name, seconds, work } of recurring) {
      if (performance.now() < (notBefore.get(name) ?? 0)) continue;
      try {
        if (!(await isDue(name, seconds))) continue;
        notBefore.set(name, performance.now() + seconds * 1000);
        await work();
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
