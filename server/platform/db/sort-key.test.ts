import { describe, expect, it } from 'vitest';
import { downward, sortKey, wholePoints } from './sort-key';

/** Whether the first stands before the second, byte by byte. */
const isBefore = (a: string, b: string): boolean => Buffer.compare(Buffer.from(a), Buffer.from(b)) < 0;

describe('sort keys', () => {
  it.each<[string, (string | number)[], (string | number)[]]>([
    ['a lower number first', [2], [10]],
    ['a lower number first, whatever follows', [2, 'z'], [10, 'a']],
    ['the most first, turned round', [downward(10)], [downward(2)]],
    ['texts in any case', ['abbey'], ['Choir']],
    ['a text before one that goes on', ['Choir'], ['Choir loft']],
    ['a short text before a longer word', ['Choir', 'z'], ['Choirs', 'a']],
    ['letters with marks among those without', ['Fähre'], ['Fahrt']],
    ['parts of a point', [wholePoints(0.5)], [wholePoints(0.501)]],
  ])('%s', (_, first, second) => expect(isBefore(sortKey(first, 9), sortKey(second, 1))).toBe(true));

  it('tells rows apart that are alike', () => expect(sortKey(['Choir'], 1)).not.toBe(sortKey(['choir'], 2)));
  it('fits its column however long a text', () =>
    expect(sortKey([1, 2, 3, 'ß'.repeat(500)], 2 ** 32).length).toBeLessThanOrEqual(191));
});
