/** Score, coverage and gate, in all and per section. Exact: no floating sums. */
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
  sections: Record<Section, Tally>;
  band: BandSegment[];
}

/** Coverage below this many percent marks the score provisional. */
export const PROVISIONAL_BELOW = 80;

function plural(n: number, one: string): string {
  return `${n} ${n === 1 ? one : one + 's'}`;
}

/** Sums up a list of findings. */
export function tally(findings: Finding[]): Tally {
  const earned = new ExactSum(),
    possible = new ExactSum(),
    decided = new ExactSum(),
    applicable = new ExactSum();
  const earnedFound = new ExactSum(),
    possibleFound = new ExactSum();
  const counts = {
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
  let anyAccepted = false;
  for (const f of findings) {
    counts[f.outcome]++;
    if (f.outcome === 'inapplicable') continue;
    applicable.add(f.weight);
    const isDecided = f.outcome === 'passed' || f.outcome === 'failed';
    if (isDecided) decided.add(f.weight, f.seen ? { num: f.seen.read, den: f.seen.known } : undefined);
    if (f.credit) {
      earned.add(f.weight, f.credit);
      possible.add(f.weight);
    }
    const foundCredit = f.creditAsFound !== undefined ? f.creditAsFound : f.credit;
    if (foundCredit) {
      earnedFound.add(f.weight, foundCredit);
      possibleFound.add(f.weight);
    }
    if (f.places.some((p) => p.accepted)) anyAccepted = true;
    if (f.accepted) counts.accepted++;
    else if (f.outcome === 'failed')
      counts[f.severity === 'blocker' ? 'blockers' : f.severity === 'major' ? 'majors' : 'minors']++;
    else if (f.severity === 'blocker' && !isDecided) counts.undecidedBlockers++;
  }
  const gate: Gate = counts.blockers ? 'held' : counts.undecidedBlockers ? 'undecided' : 'clear';
  const parts = [
    counts.blockers ? `${plural(counts.blockers, 'blocker')} open` : '',
    counts.undecidedBlockers ? `${plural(counts.undecidedBlockers, 'blocker')} undecided` : '',
    counts.accepted ? `${counts.accepted} accepted` : '',
    counts.majors ? `${plural(counts.majors, 'major')} open` : '',
    counts.minors ? `${plural(counts.minors, 'minor')} open` : '',
  ].filter(Boolean);
  return {
    score: possible.isZero ? null : earned.percentOf(possible),
    ...(anyAccepted
      ? { scoreAsFound: possibleFound.isZero ? null : earnedFound.percentOf(possibleFound) }
      : {}),
    coverage: applicable.isZero ? null : decided.percentOf(applicable),
    provisional: !applicable.isZero && decided.below(PROVISIONAL_BELOW, applicable),
    gate,
    gateNote: [gate, ...parts].join(', '),
    counts,
  };
}

/** The whole result of an audit. */
export function scoreOf(findings: Finding[]): Result {
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
  return { ...tally(findings), sections, band };
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
