import { describe, expect, it } from 'vitest';
import type { Finding } from '#core/facts/finding';
import { whatHelps } from './help';

const f = (
  check: string,
  severity: Finding['severity'],
  weight: number,
  credit: Finding['credit'],
  more: Partial<Finding> = {},
): Finding => ({
  check,
  section: 'https',
  title: check,
  severity,
  weight,
  credit,
  outcome: credit && credit.num === credit.den ? 'passed' : 'failed',
  places: [],
  ...more,
});

describe('what would help most', () => {
  it('what holds the gate first, then by points, in tenths rounded down', () => {
    // of 100 decided: 10 x 1/2 = 5 points, 20 x 1 = 20 points, 7 x 2/3 = 4.666… points
    const list = whatHelps([
      f('a', 'major', 20, { num: 0, den: 1 }),
      f('b', 'blocker', 10, { num: 1, den: 2 }),
      f('c', 'minor', 7, { num: 1, den: 3 }),
      f('d', 'major', 63, { num: 1, den: 1 }),
    ]);
    expect(list.map((h) => [h.check, h.holds, h.tenths])).toEqual([
      ['b', true, 50],
      ['a', false, 200],
      ['c', false, 46],
    ]);
  });
  it('what is accepted or undecided helps nothing; without a decided weight nothing is divided', () => {
    expect(
      whatHelps([
        f('a', 'major', 5, { num: 0, den: 1 }, { accepted: true }),
        f('b', 'major', 5, null, { outcome: 'cantTell' }),
      ]),
    ).toEqual([]);
    expect(whatHelps([f('a', 'blocker', 0, { num: 0, den: 1 })])).toEqual([
      expect.objectContaining({ tenths: 0 }),
    ]);
  });
});
