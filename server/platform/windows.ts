/** Windows of long lists. */

/** One more than is counted where nothing keeps the count: so many means that there are more. */
export const COUNTED = 501;

/** As many as one act may audit. */
export const MOST_AUDITED_AT_ONCE = 10_000;

/** So many sites are named where a document says who uses it. */
export const SITES_NAMED = 20;

export interface SomeRows<R> {
  rows: R[];
  /** By what the next window is asked for; null at the end. */
  next: string | null;
  /** How many there are in all; where only a search could tell, COUNTED stands for that many and more. */
  total: number;
}
