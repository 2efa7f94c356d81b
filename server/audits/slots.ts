/**
 * What looks at the network: audits, reading a first brief, learning defaults. So many at once, whoever asks; a
 * person who waits comes before what was queued.
 */
import { TooMany } from '../platform/errors';

const AT_ONCE = 2;
/** How long a person waits for a turn. */
const PATIENCE_MS = 60_000;

let taken = 0;
const people: (() => void)[] = [];
let onFree: () => void = () => {};

/** Called whenever a slot is free and no person waits for it. */
export function whenFree(pump: () => void): void {
  onFree = pump;
}

export const hasSlot = (): boolean => taken < AT_ONCE && people.length === 0;

export function takeSlot(): void {
  taken++;
}

export function giveSlot(): void {
  taken--;
  const next = people.shift();
  if (next) next();
  else onFree();
}

/** Waits for a slot. @throws TooMany when none came free in time; the signal's reason when it is aborted */
function waitForSlot(signal: AbortSignal): Promise<void> {
  if (taken < AT_ONCE) {
    takeSlot();
    return Promise.resolve();
  }
  return new Promise((resolve, reject) => {
    const end = (): void => {
      clearTimeout(timer);
      signal.removeEventListener('abort', leave);
      const at = people.indexOf(go);
      if (at >= 0) people.splice(at, 1);
    };
    const go = (): void => {
      end();
      takeSlot();
      resolve();
    };
    const leave = (): void => {
      end();
      reject(signal.reason as Error);
    };
    const timer = setTimeout(() => {
      end();
      reject(new TooMany(`${AT_ONCE} audits are running. Try again when one of them has ended.`));
    }, PATIENCE_MS);
    signal.addEventListener('abort', leave, { once: true });
    people.push(go);
  });
}

/** Does what a person waits for when there is a slot, and gives the slot back whatever happens. */
export async function inSlot<R>(signal: AbortSignal, work: () => Promise<R>): Promise<R> {
  await waitForSlot(signal);
  try {
    return await work();
  } finally {
    giveSlot();
  }
}
