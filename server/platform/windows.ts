/** Windows of long lists. */
import { COUNTED_UP_TO } from '#core/text/counted';

/** One more than is counted where nothing keeps the count: so many means that there are more. */
export const COUNTED = COUNTED_UP_TO + 1;

/** As many as somebody may choose at once, to audit or to change. */
export const MOST_CHOSEN = 10_000;

/** So many sites are named where a document says who uses it. */
export const SITES_NAMED = 20;

export interface SomeRows<R> {
  rows: R[];
  /** By what the next window is asked for; null at the end. */
  next: string | null;
  /** How many there are in all; where only a search could tell, COUNTED stands for that many and more. */
  total: number;
}
