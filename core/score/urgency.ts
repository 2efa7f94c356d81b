/**
 * What comes first in a list of findings: open faults by gravity and points, then what is undecided, accepted,
 * passed and not applicable.
 */
import { SECTIONS, type Finding, type Outcome, type Section, type Severity } from '#core/facts/finding';
import { pointsLost } from './score';

const OUTCOME: Record<Outcome, number> = { failed: 0, cantTell: 2, untested: 3, passed: 5, inapplicable: 6 };
const ACCEPTED = 4;
const SEVERITY: Record<Severity, number> = { blocker: 0, major: 1, minor: 2 };

/** A fault that counts: failed and not accepted. */
export function isOpenFault(f: Pick<Finding, 'outcome' | 'accepted'>): boolean {
  return f.outcome === 'failed' && !f.accepted;
}

/** What needs a person: open faults, what is undecided, and manual checks that nobody attested. */
export function needsPerson(f: Pick<Finding, 'outcome' | 'accepted'>): boolean {
  return isOpenFault(f) || f.outcome === 'cantTell' || f.outcome === 'untested';
}

/** For sorting: lower is more urgent. */
function urgency(f: Pick<Finding, 'outcome' | 'accepted' | 'severity'>): number {
  return (f.accepted ? ACCEPTED : OUTCOME[f.outcome]) * 10 + SEVERITY[f.severity];
}

const place = new Map(SECTIONS.map((section, i) => [section, i]));

/** What a finding is sorted by, but for its points. */
type Sorted = Pick<Finding, 'outcome' | 'accepted' | 'severity' | 'section'>;

/** For sorting: the worst first, by gravity, then by points lost, then in the order of the band. */
export function worstFirst<F extends Sorted>(pointsOf: (f: F) => number): (a: F, b: F) => number {
  return (a, b) =>
    urgency(a) - urgency(b) || pointsOf(b) - pointsOf(a) || place.get(a.section)! - place.get(b.section)!;
}

/** The same for whole findings. */
export const compareWorst = worstFirst<Finding>(pointsLost);

/**
 * Findings by section: sections with most open blockers first, then those that lose most; the others in the order
 * of the band. Within a section the worst first.
 */
export function bySection<F extends Sorted>(
  findings: readonly F[],
  pointsOf: (f: F) => number,
): { section: Section; list: F[] }[] {
  const groups = SECTIONS.map((section) => {
    const list = findings.filter((f) => f.section === section).sort(worstFirst(pointsOf));
    return {
      section,
      list,
      blockers: list.filter((f) => isOpenFault(f) && f.severity === 'blocker').length,
      lost: list.reduce((sum, f) => sum + pointsOf(f), 0),
    };
  });
  return groups
    .filter((g) => g.list.length)
    .sort((a, b) => b.blockers - a.blockers || b.lost - a.lost)
    .map(({ section, list }) => ({ section, list }));
}
