/** What the blanks of a brief cost: how many checks wait for each field. */
import type { BriefField } from '#core/facts/brief';
import type { Finding } from '#core/facts/finding';

export interface Blank {
  field: BriefField;
  checks: number;
  blockers: number;
  /** What these checks weigh together. */
  weight: number;
}

/** The fields that untested checks wait for, those with blockers first, then by weight. */
export function blanksOf(
  findings: readonly Pick<Finding, 'awaits' | 'outcome' | 'severity' | 'weight'>[],
): Blank[] {
  const blanks = new Map<BriefField, Blank>();
  for (const { awaits: field, outcome, severity, weight } of findings) {
    if (!field || outcome !== 'untested') continue;
    const blank = blanks.get(field) ?? { field, checks: 0, blockers: 0, weight: 0 };
    blank.checks++;
    blank.weight += weight;
    if (severity === 'blocker') blank.blockers++;
    blanks.set(field, blank);
  }
  return [...blanks.values()].sort(
    (a, b) => b.blockers - a.blockers || b.weight - a.weight || a.field.localeCompare(b.field),
  );
}
