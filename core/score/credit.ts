import type { Finding } from '#core/facts/finding';
import { NOUGHT, ONE, type Fraction } from './fraction';

/**
 * The share of its weight that a finding earns: 1 when passed, passing places / decided places when failed
 * (nothing for all-or-nothing checks), null when undecided. Accepted places are left out.
 */
export function creditOf(finding: Pick<Finding, 'outcome' | 'places'>, allOrNothing: boolean, leaveOutAccepted = true): Fraction | null {
  if (finding.outcome === 'passed') return ONE;
  if (finding.outcome !== 'failed') return null;
  const decided = finding.places.filter(p => p.outcome !== 'cantTell' && !(leaveOutAccepted && p.accepted));
  const good = decided.filter(p => p.outcome === 'passed').length;
  const someAccepted = leaveOutAccepted && finding.places.some(p => p.accepted);
  if (!decided.length) return someAccepted ? null : NOUGHT;
  if (good === decided.length) return ONE;
  return allOrNothing ? NOUGHT : { num: good, den: decided.length };
}
