/** Whether the start has finished: requests wait for it a while, and hear why when it failed. */
import { stat } from 'node:fs/promises';

let finish: () => void;
let fail: (e: Error) => void;
const ready = new Promise<void>((resolve, reject) => {
  finish = resolve;
  fail = reject;
});
ready.catch(() => {});
/** How long a request waits for the start. */
const PATIENCE_MS = 10_000;

let state: 'starting' | 'ready' | 'failed' = 'starting';
export const startState = (): typeof state => state;

export function startFinished(): void {
  state = 'ready';
  finish();
}
export function startFailed(e: Error): void {
  state = 'failed';
  fail(e);
}

/** @throws Error when the start failed, or is not through in time */
export async function started(): Promise<void> {
  let timer: NodeJS.Timeout | undefined;
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(
      () => reject(new Error('Armband is starting: it waits for its database. Try again in a moment.')),
      PATIENCE_MS,
    );
  });
  await Promise.race([ready, late]).finally(() => clearTimeout(timer));
}

/** A process that serves no screens: `npm run worker`. */
export const isWorkerOnly = (): boolean => process.env.ARMBAND_ROLE === 'worker';

const THREADS_MS = 2000;

/** Whether one of the threads that passwords, files and compression share is free within two seconds. */
export function threadsAnswer(): Promise<boolean> {
  const asked = stat('/').then(
    () => true,
    () => true,
  );
  const late = new Promise<boolean>((resolve) => {
    setTimeout(() => resolve(false), THREADS_MS).unref();
  });
  return Promise.race([asked, late]);
}
