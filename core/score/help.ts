/** What would help most: open faults by what they cost, those that hold the gate first. */
import type { Finding } from '#core/facts/finding';
import { ExactSum, ONE, type Fraction } from './fraction';
import { isOpenFault } from './urgency';

export interface Help {
  check: string;
  title: string;
  severity: Finding['severity'];
  holds: boolean;
  /** Points of the score that mending it would bring, in tenths, rounded down. */
  tenths: number;
}

/** Points are what each brings by itself: 100 x weight x missing credit / decided weight. */
export function whatHelps(findings: readonly Finding[]): Help[] {
  const possible = new ExactSum();
  for (const f of findings) if (f.credit) possible.add(f.weight);
  const missing = ({ num, den }: Fraction): Fraction => ({ num: den - num, den });
  return findings
    .filter(isOpenFault)
    .map((f) => {
      const tenths = possible.isZero
        ? 0
        : new ExactSum().add(f.weight * 10, f.credit ? missing(f.credit) : ONE).percentOf(possible);
      return {
        check: f.check,
        title: f.title,
        severity: f.severity,
        holds: f.severity === 'blocker',
        tenths,
      };
    })
    .sort((a, b) => Number(b.holds) - Number(a.holds) || b.tenths - a.tenths || (a.check < b.check ? -1 : 1));
}
