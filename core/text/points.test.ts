import { describe, expect, it } from 'vitest';
import { pointsText } from './points';

describe('points lost in figures', () => {
  it.each([
    [0, '0'],
    [20, '20'],
    [40 / 3, '13.3'],
    [2.96, '3'],
    [0.5, '0.5'],
    [0.04, 'less than 0.1'],
  ])('%d is %s', (points, text) => {
    expect(pointsText(points)).toBe(text);
  });
});
