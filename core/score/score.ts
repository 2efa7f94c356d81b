/** Score, coverage and gate, in all and per section. Exact: no floating sums. */
import { quantity } from '#core/text/quantity';
import { SECTIONS, type Finding, type Section } from '#core/facts/finding';
import { ExactSum, type Fraction } from './fraction';

export type Gate = 'held' | 'undecided' | 'clear';

export interface Tally {
  /** 0..100 rounded down, or null when nothing was decided. */
  score: number | null;
  /** Without regard to acceptances; only where anything is accepted. */
  scoreAsFound?: number | null;
  /** Percent of the applicable weight that was decided, rounded down. */
  coverage: number | null;
  provisional: boolean;
  gate: Gate;
  /** The gate's small print. */
  gateNote: string;
  counts: {
    passed: number;
    failed: number;
    cantTell: number;
    untested: number;
    inapplicable: number;
    accepted: number;
    blockers: number;
    majors: number;
    minors: number;
    undecidedBlockers: number;
  };
}

/** One line of the sum behind a score. */
export interface Term {
  check: string;
  section: Section;
  title: string;
  weight: number;
  credit: Fraction;
  earned: string;
}

/** Weights of one section as the band draws them. */
export interface BandSegment {
  section: Section;
  passed: number;
  failed: number;
  undecided: number;
  accepted: number;
}

export interface Result extends Tally {
  /** Why nothing of the site was reached. */
  unreached?: string;
  sections: Record<Section, Tally>;
  band: BandSegment[];
}

/** Coverage below this many percent marks the score provisional. */
export const PROVISIONAL_BELOW = 80;

const NO_COUNTS: Tally['counts'] = {
  passed: 0,
  failed: 0,
  cantTell: 0,
  untested: 0,
  inapplicable: 0,
  accepted: 0,
  blockers: 0,
  majors: 0,
  minors: 0,
  undecidedBlockers: 0,
};
const OPEN_OF = { blocker: 'blockers', major: 'majors', minor: 'minors' } as const;

const isDecided = (f: Finding): boolean => f.outcome === 'passed' || f.outcome === 'failed';

function countsOf(findings: readonly Finding[]): Tally['counts'] {
  const counts = { ...NO_COUNTS };
  for (const f of findings) {
    counts[f.outcome]++;
    if (f.outcome === 'inapplicable') continue;
    if (f.accepted) counts.accepted++;
    else if (f.outcome === 'failed') counts[OPEN_OF[f.severity]]++;
    else if (f.severity === 'blocker' && !isDecided(f)) counts.undecidedBlockers++;
  }
  return counts;
}

/** The share of the possible weight that was earned, in percent rounded down; null when nothing was decided. */
function scoreBy(findings: readonly Finding[], creditOf: (f: Finding) => Fraction | null): number | null {
  const earned = new ExactSum();
  const possible = new ExactSum();
  for (const f of findings) {
    const credit = creditOf(f);
    if (f.outcome === 'inapplicable' || !credit) continue;
    earned.add(f.weight, credit);
    possible.add(f.weight);
  }
  return possible.isZero ? null : earned.percentOf(possible);
}

function coverageOf(findings: readonly Finding[]): Pick<Tally, 'coverage' | 'provisional'> {
  const decided = new ExactSum();
  const applicable = new ExactSum();
  for (const f of findings) {
    if (f.outcome === 'inapplicable') continue;
    applicable.add(f.weight);
    if (isDecided(f)) decided.add(f.weight, f.seen && { num: f.seen.read, den: f.seen.known });
  }
  if (applicable.isZero) return { coverage: null, provisional: false };
  return {
    coverage: decided.percentOf(applicable),
    provisional: decided.below(PROVISIONAL_BELOW, applicable),
  };
}

function gateOf({ blockers, undecidedBlockers, accepted, majors, minors }: Tally['counts']) {
  const gate: Gate = blockers ? 'held' : undecidedBlockers ? 'undecided' : 'clear';
  const parts = [
    blockers ? `${quantity(blockers, 'blocker')} open` : '',
    undecidedBlockers ? `${quantity(undecidedBlockers, 'blocker')} undecided` : '',
    accepted ? `${accepted} accepted` : '',
    majors ? `${quantity(majors, 'major')} open` : '',
    minors ? `${quantity(minors, 'minor')} open` : '',
  ];
  return { gate, gateNote: [gate, ...parts.filter(Boolean)].join(', ') };
}

/** Sums up a list of findings. */
export function tally(findings: readonly Finding[]): Tally {
  const counts = countsOf(findings);
  const anyAccepted = findings.some((f) => f.places.some((p) => p.accepted));
  return {
    score: scoreBy(findings, (f) => f.credit),
    ...(anyAccepted ? { scoreAsFound: scoreBy(findings, (f) => f.creditAsFound ?? f.credit) } : {}),
    ...coverageOf(findings),
    ...gateOf(counts),
    counts,
  };
}

/**
 * The whole result of an audit.
 * @param unreached why nothing of the site was reached, where that is so: then there is no score
 */
export function scoreOf(findings: Finding[], unreached?: string): Result {
  const sections = {} as Record<Section, Tally>;
  const band: BandSegment[] = [];
  for (const section of SECTIONS) {
    const own = findings.filter((f) => f.section === section);
    sections[section] = tally(own);
    const segment: BandSegment = { section, passed: 0, failed: 0, undecided: 0, accepted: 0 };
    for (const f of own) {
      if (f.outcome === 'inapplicable') continue;
      if (f.accepted) {
        segment.accepted += f.weight;
        continue;
      }
      if (f.outcome === 'passed' || f.outcome === 'failed') {
        const share = f.credit ? f.credit.num / f.credit.den : 0;
        segment.passed += f.weight * share;
        segment.failed += f.weight * (1 - share);
      } else segment.undecided += f.weight;
    }
    band.push(segment);
  }
  const whole = { ...tally(findings), sections, band };
  if (unreached === undefined) return whole;
  return { ...whole, score: null, gateNote: `${whole.gate}: nothing of the site was reached`, unreached };
}

/** Every term of the score: weight x credit, in the catalogue's order. */
export function termsOf(findings: Finding[]): { terms: Term[]; earned: string; possible: string } {
  const earned = new ExactSum(),
    possible = new ExactSum();
  const terms: Term[] = [];
  for (const f of findings) {
    if (!f.credit) continue;
    earned.add(f.weight, f.credit);
    possible.add(f.weight);
    terms.push({
      check: f.check,
      section: f.section,
      title: f.title,
      weight: f.weight,
      credit: f.credit,
      earned: new ExactSum().add(f.weight, f.credit).toString(),
    });
  }
  return { terms, earned: earned.toString(), possible: possible.toString() };
}
