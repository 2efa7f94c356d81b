/** Which checks the ledger lists, and in which order. */
import { SECTION_TITLES, type Finding, type Section } from '#core/facts/finding';
import { matching } from '#core/text/matching';
import { RESTS_ON } from '#core/text/common-messages';
import { bySection, isOpenFault, needsPerson, worstFirst } from './urgency';

/** What the ledger knows of a check before it is opened. */
export interface LedgerLine extends Pick<
  Finding,
  'check' | 'section' | 'title' | 'fault' | 'severity' | 'outcome'
> {
  accepted: boolean;
  byHand: boolean;
  expected: string | null;
  /** What was found, else why nothing could be. */
  found: string | null;
  /** The code of that. */
  code: string;
  points: number;
}

export const LEDGER_SHOWS = ['needs', 'faults', 'undecided', 'hand', 'all'] as const;
export type LedgerShow = (typeof LEDGER_SHOWS)[number];

const isManualLeft = (f: LedgerLine): boolean =>
  f.byHand && !f.accepted && (f.outcome === 'untested' || f.outcome === 'cantTell');
const isUndecided = (f: LedgerLine): boolean => f.outcome === 'cantTell' || f.outcome === 'untested';

const SHOWS: Record<LedgerShow, { label: string; shows: (f: LedgerLine) => boolean }> = {
  needs: { label: 'Needs a person', shows: needsPerson },
  faults: { label: 'Failed', shows: isOpenFault },
  undecided: { label: 'Undecided', shows: (f) => isUndecided(f) && !isManualLeft(f) },
  hand: { label: 'Manual', shows: (f) => f.byHand },
  all: { label: 'All', shows: () => true },
};

/** The ways to look at the ledger, each with how many checks it shows. */
export const ledgerShows = (lines: readonly LedgerLine[]) =>
  LEDGER_SHOWS.map((key) => ({
    key,
    label: SHOWS[key].label,
    n: lines.filter(SHOWS[key].shows).length,
  }));

const textOf = (f: LedgerLine): string =>
  `${f.check} ${f.title} ${f.fault} ${f.expected ?? ''} ${f.found ?? ''} ${f.outcome} ${f.severity} ${f.section}`;

/** Checks that say nothing but that another one has to pass first. */
export const isResting = (f: LedgerLine): boolean => f.outcome === 'cantTell' && f.code === RESTS_ON;

/** Manual checks that wait for somebody. */
export const isManualOpen = (f: LedgerLine): boolean => isManualLeft(f) || (f.byHand && isOpenFault(f));

const pointsOf = (f: LedgerLine): number => f.points;
const compareLines = worstFirst<LedgerLine>(pointsOf);

/** Faults that hold the gate, the worst first. */
export const holding = <F extends LedgerLine>(lines: readonly F[]): F[] =>
  lines.filter((f) => isOpenFault(f) && f.severity === 'blocker').sort(compareLines);

/** Rows under one heading. */
export interface LedgerGroup<F> {
  key: string;
  title: string;
  section?: Section;
  list: F[];
}

/** What needs a person, worst first over all sections: what failed, what is undecided, manual checks left. */
function worstGroups<F extends LedgerLine>(found: readonly F[]): LedgerGroup<F>[] {
  const groups = [
    { key: 'failed', title: 'Failed', is: isOpenFault },
    { key: 'undecided', title: 'Undecided', is: SHOWS.undecided.shows },
    { key: 'manual', title: 'Manual checks left', is: isManualLeft },
  ];
  return groups
    .map(({ is, ...group }) => ({ ...group, list: found.filter(is).sort(compareLines) }))
    .filter((g) => g.list.length);
}

/** Checks in groups: what needs a person worst first over all sections, all others by section. */
export function ledgerGroups<F extends LedgerLine>(
  lines: readonly F[],
  show: LedgerShow,
  words: string,
): LedgerGroup<F>[] {
  const matches = matching(words);
  const found = lines.filter((f) => SHOWS[show].shows(f) && matches(textOf(f)));
  if (show === 'needs' || show === 'faults' || show === 'undecided') return worstGroups(found);
  return bySection(found, pointsOf).map((g) => ({ ...g, key: g.section, title: SECTION_TITLES[g.section] }));
}

/** One section's checks that need nobody, for one line. */
export interface LedgerFold<F> {
  section: Section;
  title: string;
  /** Such as "24 passed, 6 not applicable". */
  words: string;
  list: F[];
}

/** What passed, is accepted or not applicable, a section at a time. */
export function ledgerFolds<F extends LedgerLine>(lines: readonly F[], words: string): LedgerFold<F>[] {
  const matches = matching(words);
  const quiet = lines.filter((f) => !needsPerson(f) && matches(textOf(f)));
  return bySection(quiet, pointsOf).map(({ section, list }) => {
    const count = (is: (f: F) => boolean): number => list.filter(is).length;
    const parts: [number, string][] = [
      [count((f) => f.outcome === 'passed'), 'passed'],
      [count((f) => f.accepted), 'accepted'],
      [count((f) => f.outcome === 'inapplicable'), 'not applicable'],
    ];
    return {
      section,
      title: SECTION_TITLES[section],
      words: parts
        .filter(([n]) => n)
        .map(([n, word]) => `${n} ${word}`)
        .join(', '),
      list,
    };
  });
}
