import { describe, expect, it } from 'vitest';
import { judge } from '#core/checks/engine/judge';
import { fullChecklist } from '#core/checks/engine/checklist';
import { brief, evidence } from '#core/checks/example-evidence';
import type { Brief, BriefField } from '#core/facts/brief';
import { blanksOf } from './blanks';

const waiting = (awaits: BriefField, severity: 'blocker' | 'major' | 'minor', weight: number) => ({
  awaits,
  severity,
  weight,
  outcome: 'untested' as const,
});

describe('what the blanks of a brief cost', () => {
  it('adds up the checks that wait for a field', () => {
    expect(blanksOf([waiting('name', 'major', 5), waiting('name', 'minor', 1)])).toEqual([
      { field: 'name', checks: 2, blockers: 0, weight: 6 },
    ]);
  });
  it('puts blockers before weight, and weight before the alphabet', () => {
    const list = blanksOf([
      waiting('colours', 'minor', 1),
      waiting('phone', 'major', 5),
      waiting('badge', 'major', 5),
      waiting('name', 'minor', 30),
      waiting('preferredHost', 'blocker', 20),
    ]);
    expect(list.map((b) => b.field)).toEqual(['preferredHost', 'name', 'badge', 'phone', 'colours']);
  });
  it('a check that is decided waits for nothing', () => {
    expect(blanksOf([{ ...waiting('name', 'major', 5), outcome: 'passed' }])).toEqual([]);
  });
  it('each field that a check waits for is one whose filling decides it', () => {
    const at = new Date(evidence().finishedAt);
    const judged = (given: Brief) =>
      judge({ evidence: evidence(), brief: given, checklist: fullChecklist(), situation: 'live', at });
    const blanks = blanksOf(judged({}));
    expect(blanks.length).toBeGreaterThan(8);
    const full = brief();
    for (const { field, checks } of blanks) {
      if (full[field] === undefined) continue;
      const left = blanksOf(judged({ [field]: full[field] })).find((b) => b.field === field);
      expect(left?.checks ?? 0, field).toBeLessThan(checks);
    }
  });
});
