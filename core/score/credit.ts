/** What a finding earns of its weight, and what it loses. */
import type { Finding } from '#core/facts/finding';
import { ZERO, ONE, type Fraction } from './fraction';

/**
 * The share of the decided places that hold: 1 when passed, passing places / decided places when failed
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
  if (!good && !bad) return accepted ? null : ZERO;
  if (!bad) return ONE;
  return allOrNothing ? ZERO : { num: good, den: good + bad };
}

/**
 * The part of its weight that a finding loses: half for being there, half by the share of failing places.
 * Nothing where all holds, where nothing was decided, and where all that fails is accepted.
 * @param credit the share that holds
 */
export function lossOf(credit: Fraction | null): Fraction {
  if (!credit || credit.num === credit.den) return ZERO;
  return { num: 2 * credit.den - credit.num, den: 2 * credit.den };
}
