/** Whether the start has finished: requests wait for it, and hear why when it failed. */
let finish: () => void;
let fail: (e: Error) => void;
const ready = new Promise<void>((resolve, reject) => {
  finish = resolve;
  fail = reject;
});
ready.catch(() => {});

export const startFinished = (): void => finish();
export const startFailed = (e: Error): void => fail(e);
export const started = (): Promise<void> => ready;
