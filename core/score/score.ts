/** Score, coverage and gate, in all and per section. Exact: no floating sums. */
import { quantity } from '#core/text/quantity';
import { SECTIONS, SEVERITIES, type Finding, type Section, type Severity } from '#core/facts/finding';
import { lossOf } from './credit';
import { ExactSum, type Fraction } from './fraction';
import { headingOf } from '#core/facts/heading';
import { isMessage } from '#core/facts/message';
import { formatMessage } from '#core/text/messages';
import { commonMessage } from '#core/text/common-messages';

export type Gate = 'held' | 'undecided' | 'clear';

export interface Tally {
  /** 100 less the points lost, rounded down, and never below 0; null when nothing was decided. */
  score: number | null;
  /** Points lost by faults that are not accepted. */
  lost: number;
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

/** One line of the sum behind a score: a check that loses points. */
export interface Term {
  check: string;
  section: Section;
  title: string;
  severity: Severity;
  weight: number;
  /** The share of its places that fail. */
  share: Fraction;
  /** Points, as an exact fraction. */
  lost: string;
  points: number;
}

/** One section as the band draws it: points lost, and the weights of all else. */
export interface BandSegment {
  section: Section;
  lost: number;
  passed: number;
  undecided: number;
  accepted: number;
}

/** The fault that holds or costs most. */
interface Worst {
  check: string;
  title: string;
  severity: Severity;
  found: string;
  /** Such as “11 of 12 pages”; none where it is of the site as a whole. */
  count?: string;
}

export interface Result extends Tally {
  /** None where nothing failed, or all that did is accepted. */
  worst?: Worst;
  /** Why nothing of the site was reached. */
  unreached?: string;
  /** Why there is no score, although something was decided: too little was. */
  unscored?: string;
  sections: Record<Section, Tally>;
  band: BandSegment[];
}

/** Coverage below this many percent marks the score provisional. */
const PROVISIONAL_BELOW = 80;
/** What a site has that loses nothing. */
const WHOLE = 100;

/** Where less than this many percent of the list's weight was decided there is no score. */
export const UNSCORED_BELOW = 10;

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

/** Points lost, exactly. */
function lostBy(
  findings: readonly Finding[],
  creditOf: (f: Finding) => Fraction | null = (f) => f.credit,
): ExactSum {
  const lost = new ExactSum();
  for (const f of findings) if (f.outcome === 'failed') lost.add(f.weight, lossOf(creditOf(f)));
  return lost;
}

const creditAsFound = (f: Finding): Fraction | null => f.creditAsFound ?? f.credit;

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
  const anyDecided = findings.some(isDecided);
  const lost = lostBy(findings);
  const scoreFor = (points: ExactSum): number | null => (anyDecided ? points.leftOf(WHOLE) : null);
  return {
    score: scoreFor(lost),
    lost: lost.toNumber(),
    ...(anyAccepted ? { scoreAsFound: scoreFor(lostBy(findings, creditAsFound)) } : {}),
    ...coverageOf(findings),
    ...gateOf(counts),
    counts,
  };
}

const MOST_FOUND = 160;

/** The gravest open fault; of equally grave ones that which loses most. */
function worstOf(findings: readonly Finding[]): Worst | undefined {
  const gravity = (f: Finding): number => SEVERITIES.indexOf(f.severity);
  let worst: Finding | undefined;
  for (const f of findings) {
    if (f.outcome !== 'failed' || f.accepted) continue;
    if (!worst || gravity(f) < gravity(worst)) worst = f;
    else if (gravity(f) === gravity(worst) && pointsLost(f) > pointsLost(worst)) worst = f;
  }
  if (!worst) return undefined;
  const { check, severity, found = '', data } = worst;
  const { bad, all, unit } = data ?? {};
  return {
    check,
    title: headingOf(worst),
    severity,
    found: found.slice(0, MOST_FOUND),
    ...(isMessage(unit) ? { count: formatMessage(commonMessage('failing', { bad, all, unit })) } : {}),
  };
}

function segmentOf(section: Section, own: readonly Finding[]): BandSegment {
  const segment: BandSegment = {
    section,
    lost: lostBy(own).toNumber(),
    passed: 0,
    undecided: 0,
    accepted: 0,
  };
  for (const f of own) {
    if (f.outcome === 'inapplicable') continue;
    if (f.accepted) segment.accepted += f.weight;
    else if (!isDecided(f)) segment.undecided += f.weight;
    else if (f.credit) segment.passed += (f.weight * f.credit.num) / f.credit.den;
  }
  return segment;
}

/** Why what was decided is too little for a score; undefined where it is enough, or nothing was. */
function unscoredBy(findings: readonly Finding[]): string | undefined {
  const decided = new ExactSum();
  const all = new ExactSum();
  for (const f of findings) {
    all.add(f.weight);
    if (isDecided(f)) decided.add(f.weight);
  }
  if (decided.isZero || !decided.below(UNSCORED_BELOW, all)) return undefined;
  const count = findings.filter(isDecided).length;
  return `no score: only ${count} of ${quantity(findings.length, 'check')} could be decided`;
}

/**
 * The whole result of an audit.
 * @param unreached why nothing of the site was reached, where that is so: then there is no score
 */
export function scoreOf(findings: readonly Finding[], unreached?: string): Result {
  const sections = {} as Record<Section, Tally>;
  const band: BandSegment[] = [];
  for (const section of SECTIONS) {
    const own = findings.filter((f) => f.section === section);
    sections[section] = tally(own);
    band.push(segmentOf(section, own));
  }
  const worst = worstOf(findings);
  const whole = { ...tally(findings), sections, band, ...(worst ? { worst } : {}) };
  if (unreached === undefined) {
    const unscored = unscoredBy(findings);
    if (unscored === undefined) return whole;
    return { ...whole, score: null, gateNote: `${whole.gateNote}; ${unscored}`, unscored };
  }
  return { ...whole, score: null, gateNote: `${whole.gate}: nothing of the site was reached`, unreached };
}

/** Points that one finding loses. */
export function pointsLost(f: Finding): number {
  return lostBy([f]).toNumber();
}

/** The sum behind a score: every check that loses points, the largest loss first. */
export function termsOf(findings: readonly Finding[]): { terms: Term[]; lost: string } {
  const terms: Term[] = [];
  for (const f of findings) {
    const own = lostBy([f]);
    if (own.isZero) continue;
    const { num, den } = f.credit!;
    terms.push({
      check: f.check,
      section: f.section,
      title: headingOf(f),
      severity: f.severity,
      weight: f.weight,
      share: { num: den - num, den },
      lost: own.toString(),
      points: own.toNumber(),
    });
  }
  terms.sort((a, b) => b.points - a.points || (a.check < b.check ? -1 : 1));
  return { terms, lost: lostBy(findings).toString() };
}
