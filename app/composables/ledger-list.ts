/** Which checks the ledger lists, and in which order. */
import { SECTIONS, type Finding, type Section } from '#core/facts/finding';
import { isOpenFault, worstFirst } from '#core/score/urgency';
import { matching } from './matching';

export type LedgerShow = 'all' | 'faults' | 'undecided' | 'hand';

const isUndecided = (f: Finding): boolean => f.outcome === 'cantTell' || f.outcome === 'untested';

const SHOWS: Record<LedgerShow, { label: string; shows: (f: Finding) => boolean }> = {
  all: { label: 'All', shows: () => true },
  faults: { label: 'Faults', shows: isOpenFault },
  undecided: { label: 'Undecided', shows: isUndecided },
  hand: { label: 'By hand', shows: (f) => Boolean(f.byHand) },
};

/** The ways to look at the ledger, each with how many checks it shows. */
export const ledgerShows = (findings: readonly Finding[]) =>
  (Object.keys(SHOWS) as LedgerShow[]).map((key) => ({
    key,
    label: SHOWS[key].label,
    n: findings.filter(SHOWS[key].shows).length,
  }));

const textOf = (f: Finding): string =>
  `${f.check} ${f.title} ${f.expected ?? ''} ${f.found ?? ''} ${f.outcome} ${f.severity}`;

/** Checks that say nothing but that another one has to pass first. */
export const isResting = (f: Finding): boolean =>
  f.outcome === 'cantTell' && f.reason !== undefined && f.reason.startsWith('rests on ');

/** Sections as groups, the worst first. */
export function ledgerGroups<F extends Finding>(
  findings: readonly F[],
  show: LedgerShow,
  words: string,
): { section: Section; list: F[] }[] {
  const matches = matching(words);
  const found = findings.filter((f) => SHOWS[show].shows(f) && matches(textOf(f)));
  return worstFirst(
    SECTIONS.map((section) => ({ section, list: found.filter((f) => f.section === section) })),
  );
}

/** Manual checks that wait for somebody. */
export const manualLeft = (findings: readonly Finding[]): number =>
  findings.filter((f) => f.byHand && !f.accepted && (f.outcome === 'untested' || f.outcome === 'failed'))
    .length;
