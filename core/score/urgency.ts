/**
 * What comes first in a list of findings: open faults by gravity, then what is undecided, accepted, passed
 * and does not apply.
 */
import type { Finding, Outcome, Severity } from '#core/facts/finding';

const OUTCOME: Record<Outcome, number> = { failed: 0, cantTell: 2, untested: 3, passed: 5, inapplicable: 6 };
const ACCEPTED = 4;
const SEVERITY: Record<Severity, number> = { blocker: 0, major: 1, minor: 2 };

/** A fault that counts: failed and not accepted. */
export function isOpenFault(f: Pick<Finding, 'outcome' | 'accepted'>): boolean {
  return f.outcome === 'failed' && !f.accepted;
}

/** For sorting: lower is more urgent. */
export function urgency(f: Pick<Finding, 'outcome' | 'accepted' | 'severity'>): number {
  return (f.accepted ? ACCEPTED : OUTCOME[f.outcome]) * 10 + SEVERITY[f.severity];
}

/**
 * Findings by section: sections with open faults first, the gravest before; the others in the order given.
 * Within a section by urgency.
 */
export function worstFirst<S, F extends Pick<Finding, 'outcome' | 'accepted' | 'severity'>>(
  groups: { section: S; list: F[] }[],
): { section: S; list: F[] }[] {
  const sorted = groups
    .filter((g) => g.list.length)
    .map((g) => ({ ...g, list: [...g.list].sort((a, b) => urgency(a) - urgency(b)) }));
  const rank = (g: { list: F[] }) =>
    isOpenFault(g.list[0]!) ? urgency(g.list[0]!) : Number.MAX_SAFE_INTEGER;
  return sorted.sort((a, b) => rank(a) - rank(b));
}
