/** How long an audit will take, by those before it. */
import type { Part } from '#core/facts/parts';

/** An audit that ended: where, what it looked at, how long it took in milliseconds. */
export interface AuditTime {
  environmentId: number;
  /** Nothing where all was looked at. */
  parts: readonly Part[] | null;
  tookMs: number;
}

/** Where nothing like it was ever done. */
const USUAL_MS = 4000;
/** So many of an environment's own count; older ones were of another site. */
const OWN = 5;

const keyOf = (parts: AuditTime['parts']): string => (parts ? [...parts].sort().join() : 'all');

/** @returns the middle one; of an even number the mean of the two */
function median(values: readonly number[]): number {
  const sorted = [...values].sort((a, b) => a - b);
  const middle = sorted.length >> 1;
  return sorted.length % 2 ? sorted[middle]! : (sorted[middle - 1]! + sorted[middle]!) / 2;
}

/**
 * Expects of each environment the median of its own last audits of the same parts, else that of all such audits.
 * @param times newest first
 * @returns a function from environment and parts to milliseconds
 */
export function durationsFrom(
  times: readonly AuditTime[],
): (environmentId: number, parts: AuditTime['parts']) => number {
  const own = new Map<string, number[]>();
  const all = new Map<string, number[]>();
  for (const { environmentId, parts, tookMs } of times) {
    const key = keyOf(parts);
    const mine = own.get(`${environmentId} ${key}`) ?? [];
    if (mine.length < OWN) own.set(`${environmentId} ${key}`, [...mine, tookMs]);
    const others = all.get(key);
    if (others) others.push(tookMs);
    else all.set(key, [tookMs]);
  }
  const middles = new Map([...all].map(([key, values]) => [key, median(values)]));
  return (environmentId, parts) => {
    const key = keyOf(parts);
    const mine = own.get(`${environmentId} ${key}`);
    return mine ? median(mine) : (middles.get(key) ?? USUAL_MS);
  };
}
