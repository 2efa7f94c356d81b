import { describe, expect, it } from 'vitest';
import { pointsLost } from './score';
import { SEVERITY_WEIGHT, type Finding, type Section } from '#core/facts/finding';
import { bySection, compareWorst, isOpenFault, needsPerson } from './urgency';

const f = (
  outcome: Finding['outcome'],
  severity: Finding['severity'] = 'major',
  more: Partial<Finding> = {},
): Finding => ({
  check: `${outcome} ${severity}`,
  section: 'https',
  title: '',
  fault: '',
  severity,
  weight: SEVERITY_WEIGHT[severity],
  credit: outcome === 'passed' ? { num: 1, den: 1 } : outcome === 'failed' ? { num: 0, den: 1 } : null,
  outcome,
  code: 'x',
  places: [],
  ...more,
});

describe('what comes first', () => {
  it('open faults by gravity and points, then undecided, untested, accepted, passed, not applicable', () => {
    const inOrder = [
      f('failed', 'blocker'),
      f('failed', 'major'),
      f('failed', 'major', { credit: { num: 9, den: 10 } }),
      f('failed', 'minor'),
      f('cantTell', 'blocker'),
      f('untested', 'minor'),
      f('failed', 'blocker', { accepted: true, credit: null }),
      f('passed', 'blocker'),
      f('inapplicable', 'blocker'),
    ];
    expect([...inOrder].reverse().sort(compareWorst)).toEqual(inOrder);
  });
  it.each([
    ['failed', f('failed'), true, true],
    ['accepted', f('failed', 'major', { accepted: true }), false, false],
    ['cannot tell', f('cantTell'), false, true],
    ['untested', f('untested'), false, true],
    ['passed', f('passed'), false, false],
    ['not applicable', f('inapplicable'), false, false],
  ])('%s: whether it counts, and whether it needs a person', (_, one, counts, needs) => {
    expect([isOpenFault(one), needsPerson(one)]).toEqual([counts, needs]);
  });
  it('sections by blockers, then by points, then as the band has them; empty ones go', () => {
    const at = (section: Section, ...list: Finding[]) => list.map((one) => ({ ...one, section }));
    const sorted = bySection(
      [
        ...at('identity', f('passed')),
        ...at('https', f('passed'), f('failed', 'minor')),
        ...at('domain', f('failed', 'major'), f('failed', 'major'), f('failed', 'major')),
        ...at('metadata', f('cantTell', 'blocker')),
        ...at('sharing', f('passed'), f('failed', 'blocker')),
        ...at('delivery', f('failed', 'blocker', { accepted: true, credit: null })),
      ],
      pointsLost,
    );
    expect(sorted.map((g) => g.section)).toEqual([
      'sharing',
      'domain',
      'https',
      'identity',
      'metadata',
      'delivery',
    ]);
    expect(sorted[0]!.list[0]).toMatchObject({ outcome: 'failed' });
  });
});
