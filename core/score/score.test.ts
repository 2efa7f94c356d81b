import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { SEVERITY_WEIGHT, type Finding, type PlaceResult, type Severity } from '#core/facts/finding';
import { creditOf, lossOf } from './credit';
import { ExactSum } from './fraction';
import { pointsLost, scoreOf, tally, termsOf } from './score';

function finding(
  outcome: Finding['outcome'],
  severity: Severity,
  good = 0,
  bad = 0,
  more: Partial<Finding> = {},
): Finding {
  const places: PlaceResult[] = [
    ...Array.from({ length: good }, (_, i) => ({ place: `g${i}`, outcome: 'passed' as const, code: 'x' })),
    ...Array.from({ length: bad }, (_, i) => ({ place: `b${i}`, outcome: 'failed' as const, code: 'x' })),
  ];
  const f: Finding = {
    check: `x.${outcome}${severity}${good}${bad}`,
    section: 'metadata',
    title: 'T',
    fault: 'F',
    severity,
    weight: SEVERITY_WEIGHT[severity],
    credit: null,
    outcome,
    code: 'x',
    places,
    ...more,
  };
  f.credit = creditOf(f, false);
  return f;
}
/** Accepts places, and the whole where nothing else fails. */
function accepting(f: Finding, ...places: string[]): Finding {
  for (const p of f.places) if (places.includes(p.place)) p.accepted = true;
  if (f.places.every((p) => p.outcome !== 'failed' || p.accepted)) f.accepted = true;
  f.credit = creditOf(f, false);
  f.creditAsFound = creditOf(f, false, false);
  return f;
}

describe('points lost, by hand in exact fractions', () => {
  it.each<[string, Finding, string]>([
    ['a blocker at all places: 20 x (1/2 + 1/2)', finding('failed', 'blocker', 0, 3), '20'],
    ['a blocker at one of three: 20 x (1/2 + 1/6)', finding('failed', 'blocker', 2, 1), '40/3'],
    ['a major at one of eleven: 5 x (1/2 + 1/22)', finding('failed', 'major', 10, 1), '30/11'],
    ['a minor at two of seven: 1 x (1/2 + 1/7)', finding('failed', 'minor', 5, 2), '9/14'],
    ['of the site as a whole, without places', finding('failed', 'major'), '5'],
    ['a weight of its own: 7.5 x (1/2 + 1/4)', finding('failed', 'major', 1, 1, { weight: 7.5 }), '45/8'],
    ['what passed', finding('passed', 'blocker', 3), '0'],
    ['what cannot be told', finding('cantTell', 'blocker'), '0'],
    ['accepted at all its places', accepting(finding('failed', 'major', 1, 1), 'b0'), '0'],
    [
      'accepted at one of two, one good: 5 x (1/2 + 1/4)',
      accepting(finding('failed', 'major', 1, 2), 'b0'),
      '15/4',
    ],
  ])('%s', (_, f, lost) => {
    expect(termsOf([f]).lost).toBe(lost);
  });
  it('an all-or-nothing check loses all once a place failed', () => {
    expect(lossOf(creditOf(finding('failed', 'major', 9, 1), true))).toEqual({ num: 2, den: 2 });
  });
});

describe('score', () => {
  it('is 100 less the points lost, rounded down', () => {
    // 20 x 2/3 + 5 x 6/11 + 1 x 9/14 = 16.703…
    const found = [
      finding('failed', 'blocker', 2, 1),
      finding('failed', 'major', 10, 1),
      finding('failed', 'minor', 5, 2),
      finding('passed', 'blocker', 1),
    ];
    expect(termsOf(found).lost).toBe('7717/462');
    expect(tally(found)).toMatchObject({
      score: 83,
      lost: expect.closeTo(16.7035) as number,
      gateNote: 'held, 1 blocker open, 1 major open, 1 minor open',
    });
  });
  it('is never 100 while anything failed, and exactly 100 when nothing did', () => {
    expect(tally([finding('failed', 'minor', 99_999, 1)]).score).toBe(99);
    expect(tally([finding('passed', 'minor', 3), finding('inapplicable', 'blocker')])).toMatchObject({
      score: 100,
      lost: 0,
    });
  });
  it('stays 0 beyond 100 points, which are said all the same', () => {
    const many = Array.from({ length: 6 }, (_, i) => finding('failed', 'blocker', 0, 1, { check: `x.${i}` }));
    expect(tally(many)).toMatchObject({ score: 0, lost: 120 });
  });
  it('does not exist when nothing was decided, or nothing was reached', () => {
    expect(tally([finding('cantTell', 'blocker'), finding('untested', 'major')])).toMatchObject({
      score: null,
      coverage: 0,
      gate: 'undecided',
      provisional: true,
    });
    expect(tally([])).toMatchObject({ score: null, coverage: null, gate: 'clear' });
    expect(scoreOf([finding('failed', 'blocker', 0, 1)], 'no such name')).toMatchObject({
      score: null,
      unreached: 'no such name',
    });
  });
  it('coverage counts decided weight, and below 80 % the score is provisional', () => {
    const major = (outcome: Finding['outcome']) => finding(outcome, 'major', 1);
    const four = Array.from({ length: 4 }, () => major('passed'));
    expect(tally([...four, finding('untested', 'major')])).toMatchObject({
      coverage: 80,
      provisional: false,
    });
    // 5 of 6
    expect(tally([major('passed'), finding('untested', 'minor')])).toMatchObject({ coverage: 83 });
    expect(tally([major('passed'), finding('untested', 'blocker')])).toMatchObject({
      coverage: 20,
      provisional: true,
    });
  });
  it('the gate is held by a failed blocker, undecided by an open one', () => {
    expect(tally([finding('failed', 'blocker', 0, 1), finding('cantTell', 'blocker')]).gate).toBe('held');
    expect(tally([finding('passed', 'blocker', 1), finding('untested', 'blocker')]).gate).toBe('undecided');
    expect(tally([finding('failed', 'blocker', 0, 1, { accepted: true })]).gate).toBe('clear');
  });
  it('accepted places are left out, and the score as found stands beside it', () => {
    const f = accepting(finding('failed', 'major', 1, 1), 'b0');
    // as found: 5 x (1/2 + 1/4) = 3.75
    expect(tally([f, finding('passed', 'major', 1)])).toMatchObject({
      score: 100,
      scoreAsFound: 96,
      coverage: 100,
      gateNote: 'clear, 1 accepted',
    });
  });
});

describe('the sum behind a score', () => {
  it('has the largest loss first, with its share, and nothing that loses nothing', () => {
    const { terms, lost } = termsOf([
      finding('failed', 'minor', 0, 1),
      finding('passed', 'blocker', 1),
      finding('failed', 'major', 1, 2),
      finding('cantTell', 'major'),
    ]);
    expect(terms.map((t) => [t.severity, t.weight, t.share, t.lost])).toEqual([
      ['major', 5, { num: 2, den: 3 }, '25/6'],
      ['minor', 1, { num: 1, den: 1 }, '1'],
    ]);
    expect(lost).toBe('31/6');
  });
  it('a section of the band: points lost, and the weights of what holds, is undecided, is accepted', () => {
    const { band } = scoreOf([
      finding('failed', 'major', 1, 1),
      finding('untested', 'blocker'),
      finding('passed', 'minor', 1),
      accepting(finding('failed', 'minor', 0, 1), 'b0'),
    ]);
    expect(band.find((s) => s.section === 'metadata')).toEqual({
      section: 'metadata',
      lost: 3.75,
      passed: 3.5,
      undecided: 20,
      accepted: 1,
    });
  });
  it('the worst fault: the gravest, then what loses most, never an accepted one', () => {
    const at = (severity: Severity, check: string, good = 0): Finding =>
      finding('failed', severity, good, 1, { check, found: `found by ${check}` });
    const accepted = accepting(at('blocker', 'x.accepted'), 'b0');
    const worst = (...list: Finding[]) => scoreOf(list).worst?.check;
    expect(worst(at('minor', 'x.a'), at('major', 'x.b', 9), at('major', 'x.c'), accepted)).toBe('x.c');
    expect(worst(at('major', 'x.b'), at('blocker', 'x.d', 9))).toBe('x.d');
    expect(worst(accepted, finding('passed', 'major', 1))).toBeUndefined();
  });
  it('takes weights with decimals', () => {
    expect(new ExactSum().add(0.1).add(0.2).toString()).toBe('3/10');
  });
});

describe('whatever the findings', () => {
  const some = fc.record({
    severity: fc.constantFrom<Severity>('blocker', 'major', 'minor'),
    outcome: fc.constantFrom<Finding['outcome']>('passed', 'failed', 'cantTell', 'inapplicable'),
    good: fc.integer({ min: 0, max: 60 }),
    bad: fc.integer({ min: 1, max: 60 }),
    weight: fc.integer({ min: 1, max: 50 }),
  });
  const lists = fc
    .array(some, { minLength: 1, maxLength: 12 })
    .map((list) =>
      list.map(({ outcome, severity, good, bad, weight }, i) =>
        finding(outcome, severity, good, outcome === 'failed' ? bad : 0, { weight, check: `x.${i}` }),
      ),
    );

  it('agrees with arithmetic in common fractions', () => {
    fc.assert(
      fc.property(lists, (findings) => {
        const failed = findings.filter((f) => f.outcome === 'failed');
        const sizes = failed.map((f) => BigInt(f.places.length));
        const den = sizes.reduce((product, n) => product * n * 2n, 1n);
        const num = failed.reduce((sum, f, i) => {
          const bad = BigInt(f.places.filter((p) => p.outcome === 'failed').length);
          return sum + (BigInt(f.weight) * (sizes[i]! + bad) * den) / (2n * sizes[i]!);
        }, 0n);
        const left = 100n * den - num;
        const { score } = tally(findings);
        if (score !== null) expect(score).toBe(left < 0n ? 0 : Number(left / den));
      }),
      { numRuns: 200 },
    );
  });
  it('mending one fault, all else unchanged, never lowers the score', () => {
    fc.assert(
      fc.property(lists, fc.nat(), (findings, which) => {
        const failed = findings.filter((f) => f.outcome === 'failed');
        if (!failed.length) return;
        const one = failed[which % failed.length]!;
        const mended = findings.map((f) =>
          f === one ? finding('passed', f.severity, 1, 0, { weight: f.weight, check: f.check }) : f,
        );
        expect(tally(mended).score!).toBeGreaterThanOrEqual(tally(findings).score!);
        expect(tally(mended).lost).toBeLessThan(tally(findings).lost);
      }),
    );
  });
  it('a check that passes changes nothing, and the order never matters', () => {
    fc.assert(
      fc.property(lists, fc.integer({ min: 1, max: 50 }), (findings, weight) => {
        const before = tally(findings);
        if (before.score === null) return;
        const longer = [...findings, finding('passed', 'major', 1, 0, { weight, check: 'x.more' })].reverse();
        expect(tally(longer)).toMatchObject({ score: before.score, gate: before.gate });
        expect(termsOf(longer)).toEqual(termsOf(findings));
      }),
    );
  });
  it('the sections’ points are the whole’s', () => {
    fc.assert(
      fc.property(lists, (findings) => {
        expect(findings.reduce((sum, f) => sum + pointsLost(f), 0)).toBeCloseTo(tally(findings).lost);
      }),
    );
  });
});

describe('too little decided', () => {
  // product.md: below a tenth of the list's weight there is no score
  const passed = finding('passed', 'minor');
  const listOf = (majors: number) => [
    passed,
    ...Array.from({ length: majors }, () => finding('inapplicable', 'major')),
  ];
  it.each([
    ['1 of 11: less than a tenth', 2, null, /^clear; no score: only 1 of 3 checks could be decided$/],
    ['1 of 6', 1, 100, /^clear$/],
    ['1 of 1', 0, 100, /^clear$/],
  ])('%s', (_, majors, score, note) => {
    const result = scoreOf(listOf(majors));
    expect(result.score).toBe(score);
    expect(result.gateNote).toMatch(note);
  });
  it('nothing decided needs no reason of its own', () => {
    expect(scoreOf([finding('untested', 'major')])).not.toHaveProperty('unscored');
  });
});
