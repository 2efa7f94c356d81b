import { describe, expect, it } from 'vitest';
import { COUNTED_UP_TO, countText } from './counted';

describe('counts', () => {
  it.each([
    ['few', 7, false, '7'],
    ['the last that is counted', COUNTED_UP_TO, false, '500'],
    ['more than are counted', COUNTED_UP_TO + 1, false, 'over 500'],
    ['more, where it is known', 5000, true, '5000'],
  ])('%s', (_, count, isKept, text) => expect(countText(count, isKept)).toBe(text));
});
