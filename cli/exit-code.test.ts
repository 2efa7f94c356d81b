/** What the command's exit code says of open faults. */
import { describe, expect, it } from 'vitest';
import { SEVERITY_WEIGHT, type Finding, type Severity } from '#core/facts/finding';
import type { JudgedFinding } from '#core/checks/engine/judge';
import { readArguments, UsageError } from './arguments';
import { exitCodeOf } from './audit';

const finding = (outcome: Finding['outcome'], severity: Severity): JudgedFinding =>
  ({
    check: `x.${outcome}-${severity}`,
    section: 'https',
    title: 'T',
    fault: 'F',
    severity,
    weight: SEVERITY_WEIGHT[severity],
    outcome,
    code: 'x',
    places: [],
    credit: outcome === 'failed' ? { num: 0, den: 1 } : outcome === 'passed' ? { num: 1, den: 1 } : null,
  }) as JudgedFinding;
const good = finding('passed', 'major');

describe('the exit code', () => {
  it.each<[string, JudgedFinding[], string | undefined, number]>([
    ['nothing wrong', [good], undefined, 0],
    ['a minor fault', [good, finding('failed', 'minor')], undefined, 0],
    ['a blocker', [good, finding('failed', 'blocker')], undefined, 1],
    ['an undecided blocker', [good, finding('cantTell', 'blocker')], undefined, 3],
    ['a minor fault', [good, finding('failed', 'minor')], 'minor', 1],
    ['a minor fault', [good, finding('failed', 'minor')], 'major', 0],
    ['a major fault', [good, finding('failed', 'major')], 'major', 1],
    ['a major fault', [good, finding('failed', 'major')], 'blocker', 0],
    ['a blocker', [good, finding('failed', 'blocker')], 'minor', 1],
    ['an undecided blocker', [good, finding('cantTell', 'blocker')], 'undecided', 1],
    ['an undecided blocker', [good, finding('cantTell', 'blocker')], 'blocker', 3],
    ['an undecided minor check', [good, finding('cantTell', 'minor')], 'undecided', 0],
    ['nothing that could be judged', [finding('cantTell', 'minor')], undefined, 3],
    ['nothing that could be judged', [finding('cantTell', 'minor')], 'minor', 3],
  ])('%s (%#)', (_, findings, failOn, code) => {
    expect(exitCodeOf(findings, failOn as 'minor')).toBe(code);
  });
  it('another word than those is refused', () => {
    expect(readArguments(['a.example', '--fail-on', 'minor', '--commands'])).toMatchObject({
      failOn: 'minor',
      commands: true,
    });
    expect(() => readArguments(['a.example', '--fail-on', 'some'])).toThrow(UsageError);
  });
});
