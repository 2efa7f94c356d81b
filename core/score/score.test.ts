import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import type { Finding, PlaceResult, Severity } from '#core/facts/finding';
import { creditOf } from './credit';
import { ExactSum } from './fraction';
import { scoreOf, tally, termsOf } from './score';

function finding(
  outcome: Finding['outcome'],
  severity: Severity,
  good = 0,
  bad = 0,
  more: Partial<Finding> = {},
): Finding {
  const places: PlaceResult[] = [
    ...Array.from({ length: good }, (_, i) => ({ place: `g${i}`, outcome: 'passed' as const })),
    ...Array.from({ length: bad }, (_, i) => ({ place: `b${i}`, outcome: 'failed' as const })),
  ];
  const f: Finding = {
    check: `x.${outcome}${severity}${good}${bad}`,
    section: 'metadata',
    title: 'T',
    severity,
    weight: { blocker: 10, major: 5, minor: 2 }[severity],
    credit: null,
    outcome,
    places,
    ...more,
  };
  f.credit = creditOf(f, false);
  return f;
}

describe('score', () => {
  it('is 100 x sum(weight x credit) / sum(weight), rounded down', () => {
    // (10 + 5 x 2/3) / 15 = 88.88…
    expect(tally([finding('passed', 'blocker', 1), finding('failed', 'major', 2, 1)])).toMatchObject({
      score: 88,
      coverage: 100,
      gate: 'clear',
      gateNote: 'clear, 1 major open',
    });
  });
  it('is never 100 while anything failed, and exactly 100 when nothing did', () => {
    expect(tally([finding('passed', 'blocker', 1), finding('failed', 'minor', 99_999, 1)]).score).toBe(99);
    expect(tally([finding('passed', 'minor', 3), finding('inapplicable', 'blocker')]).score).toBe(100);
  });
  it('does not exist when nothing was decided', () => {
    expect(tally([finding('cantTell', 'blocker'), finding('untested', 'major')])).toMatchObject({
      score: null,
      coverage: 0,
      gate: 'undecided',
      provisional: true,
    });
    expect(tally([])).toMatchObject({ score: null, coverage: null, gate: 'clear' });
  });
  it('coverage counts decided weight, and below 80 % the score is provisional', () => {
    expect(
      tally([
        finding('passed', 'major', 1),
        finding('passed', 'major', 1),
        finding('passed', 'major', 1),
        finding('passed', 'major', 1),
        finding('untested', 'major'),
      ]),
    ).toMatchObject({ coverage: 80, provisional: false });
    expect(tally([finding('passed', 'major', 1), finding('untested', 'minor')])).toMatchObject({
      coverage: 71,
      provisional: true,
    });
  });
  it('the gate is held by a failed blocker, undecided by an open one', () => {
    expect(tally([finding('failed', 'blocker', 0, 1), finding('cantTell', 'blocker')]).gate).toBe('held');
    expect(tally([finding('passed', 'blocker', 1), finding('untested', 'blocker')]).gate).toBe('undecided');
    expect(tally([finding('failed', 'blocker', 0, 1, { accepted: true })]).gate).toBe('clear');
  });
  it('accepted places are left out, and the score as found stands beside it', () => {
    const f = finding('failed', 'major', 1, 1);
    f.places[1]!.accepted = true;
    f.accepted = true;
    f.credit = creditOf(f, false);
    f.creditAsFound = creditOf(f, false, false);
    expect(tally([f, finding('passed', 'major', 1)])).toMatchObject({
      score: 100,
      scoreAsFound: 75,
      gateNote: 'clear, 1 accepted',
    });
    const whole = finding('failed', 'major', 0, 1);
    whole.places[0]!.accepted = true;
    whole.accepted = true;
    whole.credit = creditOf(whole, true);
    whole.creditAsFound = creditOf(whole, true, false);
    expect(tally([whole, finding('passed', 'major', 1)])).toMatchObject({
      score: 100,
      scoreAsFound: 50,
      coverage: 100,
    });
  });
  it('an all-or-nothing check earns nothing once a place failed', () => {
    expect(creditOf(finding('failed', 'major', 9, 1), true)).toEqual({ num: 0, den: 1 });
  });
  it('every score opens up into its sum', () => {
    const findings = [
      finding('failed', 'major', 1, 2),
      finding('passed', 'minor', 1),
      finding('cantTell', 'major'),
    ];
    expect(termsOf(findings)).toMatchObject({
      earned: '11/3',
      possible: '7',
      terms: [{ earned: '5/3' }, { earned: '2' }],
    });
    expect(tally(findings).score).toBe(52);
  });
  it('agrees with arithmetic in common fractions, whatever the denominators', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.record({
            w: fc.integer({ min: 1, max: 50 }),
            good: fc.integer({ min: 0, max: 60 }),
            bad: fc.integer({ min: 1, max: 60 }),
          }),
          { minLength: 1, maxLength: 12 },
        ),
        (list) => {
          const findings = list.map((x, i) => ({
            ...finding('failed', 'major', x.good, x.bad),
            weight: x.w,
            check: `x.${i}`,
          }));
          const lcm = list.reduce((l, x) => l * BigInt(x.good + x.bad), 1n);
          const num = list.reduce(
            (s, x) => s + (BigInt(x.w) * BigInt(x.good) * lcm) / BigInt(x.good + x.bad),
            0n,
          );
          const den = lcm * BigInt(list.reduce((s, x) => s + x.w, 0));
          expect(tally(findings).score).toBe(Number((100n * num) / den));
        },
      ),
      { numRuns: 200 },
    );
  });
  it('a section’s band holds exactly its weight', () => {
    const { band } = scoreOf([
      finding('failed', 'major', 1, 1),
      finding('untested', 'blocker'),
      finding('passed', 'minor', 1),
      finding('failed', 'minor', 0, 1, { accepted: true }),
    ]);
    expect(band.find((s) => s.section === 'metadata')).toEqual({
      section: 'metadata',
      passed: 4.5,
      failed: 2.5,
      undecided: 10,
      accepted: 2,
    });
  });
  it('takes weights with decimals', () => {
    expect(new ExactSum().add(0.1).add(0.2).toString()).toBe('3/10');
  });
});
