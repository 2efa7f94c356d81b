import type { Finding } from '#core/facts/finding';
import { NOUGHT, ONE, type Fraction } from './fraction';

/**
 * The share of its weight that a finding earns: 1 when passed, passing places / decided places when failed
 * (nothing for all-or-nothing checks), null when undecided. Accepted places are left out.
 */
export function creditOf(
  finding: Pick<Finding, 'outcome' | 'places'>,
  allOrNothing: boolean,
  leaveOutAccepted = true,
): Fraction | null {
  if (finding.outcome === 'passed') return ONE;
  if (finding.outcome !== 'failed') return null;
  let good = 0,
    bad = 0,
    accepted = 0;
  for (const p of finding.places) {
    if (leaveOutAccepted && p.accepted) accepted++;
    else if (p.outcome === 'passed') good++;
    else if (p.outcome !== 'cantTell') bad++;
  }
  if (!good && !bad) return accepted ? null : NOUGHT;
  if (!bad) return ONE;
  return allOrNothing ? NOUGHT : { num: good, den: good + bad };
}
