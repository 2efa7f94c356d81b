/** Which checks the ledger lists, and in which order. */
import { SECTION_TITLES, type Finding, type Section } from '#core/facts/finding';
import { bySection, compareWorst, isOpenFault, needsPerson } from '#core/score/urgency';
import { matching } from './matching';

export type LedgerShow = 'needs' | 'faults' | 'undecided' | 'hand' | 'all';

const isManualLeft = (f: Finding): boolean =>
  Boolean(f.byHand) && !f.accepted && (f.outcome === 'untested' || f.outcome === 'cantTell');
const isUndecided = (f: Finding): boolean => f.outcome === 'cantTell' || f.outcome === 'untested';

const SHOWS: Record<LedgerShow, { label: string; shows: (f: Finding) => boolean }> = {
  needs: { label: 'Needs a person', shows: needsPerson },
  faults: { label: 'Failed', shows: isOpenFault },
  undecided: { label: 'Undecided', shows: (f) => isUndecided(f) && !isManualLeft(f) },
  hand: { label: 'Manual', shows: (f) => Boolean(f.byHand) },
  all: { label: 'All', shows: () => true },
};

/** The ways to look at the ledger, each with how many checks it shows. */
export const ledgerShows = (findings: readonly Finding[]) =>
  (Object.keys(SHOWS) as LedgerShow[]).map((key) => ({
    key,
    label: SHOWS[key].label,
    n: findings.filter(SHOWS[key].shows).length,
  }));

const textOf = (f: Finding): string =>
  `${f.check} ${f.title} ${f.expected ?? ''} ${f.found ?? ''} ${f.reason ?? ''} ${f.outcome} ${f.severity} ${f.section}`;

/** Checks that say nothing but that another one has to pass first. */
export const isResting = (f: Finding): boolean =>
  f.outcome === 'cantTell' && f.reason !== undefined && f.reason.startsWith('rests on ');

/** Rows under one heading. */
export interface LedgerGroup<F> {
  key: string;
  title: string;
  section?: Section;
  list: F[];
}

/** What needs a person, worst first over all sections: what failed, what is undecided, manual checks left. */
function worstGroups<F extends Finding>(found: readonly F[]): LedgerGroup<F>[] {
  const groups = [
    { key: 'failed', title: 'Failed', is: isOpenFault },
    { key: 'undecided', title: 'Undecided', is: SHOWS.undecided.shows },
    { key: 'manual', title: 'Manual checks left', is: isManualLeft },
  ];
  return groups
    .map(({ is, ...group }) => ({ ...group, list: found.filter(is).sort(compareWorst) }))
    .filter((g) => g.list.length);
}

/** Checks in groups: what needs a person worst first over all sections, all others by section. */
export function ledgerGroups<F extends Finding>(
  findings: readonly F[],
  show: LedgerShow,
  words: string,
): LedgerGroup<F>[] {
  const matches = matching(words);
  const found = findings.filter((f) => SHOWS[show].shows(f) && matches(textOf(f)));
  if (show === 'needs' || show === 'faults' || show === 'undecided') return worstGroups(found);
  return bySection(found).map((g) => ({ ...g, key: g.section, title: SECTION_TITLES[g.section] }));
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
export function ledgerFolds<F extends Finding>(findings: readonly F[], words: string): LedgerFold<F>[] {
  const matches = matching(words);
  const quiet = findings.filter((f) => !needsPerson(f) && matches(textOf(f)));
  return bySection(quiet).map(({ section, list }) => {
    const count = (is: (f: F) => boolean): number => list.filter(is).length;
    const parts: [number, string][] = [
      [count((f) => f.outcome === 'passed'), 'passed'],
      [count((f) => Boolean(f.accepted)), 'accepted'],
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

/** Manual checks that wait for somebody. */
export const manualLeft = (findings: readonly Finding[]): number =>
  findings.filter((f) => isManualLeft(f) || (f.byHand && isOpenFault(f))).length;
