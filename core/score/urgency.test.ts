import { describe, expect, it } from 'vitest';
import type { Finding } from '#core/facts/finding';
import { isOpenFault, urgency, worstFirst } from './urgency';

type F = Pick<Finding, 'outcome' | 'accepted' | 'severity'>;
const f = (outcome: F['outcome'], severity: F['severity'] = 'major', accepted?: boolean): F => ({
  outcome,
  severity,
  accepted,
});

describe('what comes first', () => {
  it('open faults by gravity, then undecided, untested, accepted, passed, not applicable', () => {
    const inOrder = [
      f('failed', 'blocker'),
      f('failed', 'major'),
      f('failed', 'minor'),
      f('cantTell', 'blocker'),
      f('untested', 'minor'),
      f('failed', 'blocker', true),
      f('passed', 'blocker'),
      f('inapplicable', 'blocker'),
    ];
    expect([...inOrder].reverse().sort((a, b) => urgency(a) - urgency(b))).toEqual(inOrder);
  });
  it('an accepted fault is none that counts', () => {
    expect(isOpenFault(f('failed'))).toBe(true);
    expect(isOpenFault(f('failed', 'major', true))).toBe(false);
    expect(isOpenFault(f('cantTell'))).toBe(false);
  });
  it('sections with faults come first, the gravest before, the others keep their order, empty ones go', () => {
    const groups = [
      { section: 'a', list: [f('passed')] },
      { section: 'b', list: [f('passed'), f('failed', 'minor')] },
      { section: 'c', list: [] },
      { section: 'd', list: [f('cantTell', 'blocker')] },
      { section: 'e', list: [f('passed'), f('failed', 'blocker')] },
      { section: 'f', list: [f('failed', 'blocker', true)] },
    ];
    const sorted = worstFirst(groups);
    expect(sorted.map((g) => g.section)).toEqual(['e', 'b', 'a', 'd', 'f']);
    expect(sorted[0]!.list[0]).toMatchObject({ outcome: 'failed' });
    expect(groups[4]!.list[0]).toMatchObject({ outcome: 'passed' });
  });
});
