/** The server's clock, by which dates are judged: in the demo it can run fast, and a browser's own may be off. */
let shownAt = 0;
let since = 0;
let rate = 0;

/** Takes over what the server says. */
export function setClock(clock: { now: string; rate: number }): void {
  shownAt = Date.parse(clock.now);
  since = performance.now();
  rate = clock.rate;
}

/** Milliseconds since 1970 by that clock; the browser's own until the server has said. */
export const clockNow = (): number => (rate ? shownAt + (performance.now() - since) * rate : Date.now());
export const clockToday = (): string => new Date(clockNow()).toISOString().slice(0, 10);
