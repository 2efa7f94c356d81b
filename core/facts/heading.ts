/** Which of its two titles a check is listed under. */
import type { Outcome } from './finding';

/** Characters that a title of a check has room for on all screens. */
export const TITLE_LENGTH = 60;

export interface Titled {
  /** How it should be. */
  title: string;
  /** What is wrong when it failed; none where it was stored before checks had two titles. */
  fault?: string | null;
  outcome: Outcome;
}

/** What failed is listed by what is wrong, whether or not that is accepted; all else by how it should be. */
export const headingOf = ({ title, fault, outcome }: Titled): string =>
  (outcome === 'failed' && fault) || title;
