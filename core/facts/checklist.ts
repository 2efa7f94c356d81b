import type { Section, Severity } from './finding';
import type { Message } from './message';
import type { Situation, Stage } from './situation';

/**
 * One line of a checklist: which check, how grave, how heavy, with which parameters. Lines of a section stand
 * in its order.
 */
export interface ChecklistItem {
  check: string;
  on?: boolean;
  severity?: Severity;
  weight?: number;
  parameters?: Record<string, number | string | boolean>;
  /** The agency's own words instead of the catalogue's. */
  title?: string;
  note?: string;
}

/** How a value is compared. In `matches` a star stands for anything. */
export type Comparison = 'there' | 'missing' | 'equals' | 'differs' | 'contains' | 'matches';
export const COMPARISONS: readonly Comparison[] = [
  'there',
  'missing',
  'equals',
  'differs',
  'contains',
  'matches',
];
/** Comparisons that need no value. */
export const BARE: ReadonlySet<Comparison> = new Set(['there', 'missing']);
export const LOOKS = ['element', 'header', 'text', 'record', 'status'] as const;
export type Look = (typeof LOOKS)[number];

/** What a check of the agency's own looks at: one block, no code. */
export interface OwnTest {
  look: Look;
  /** CSS selector of an element, name of a header, name of a record, path of a status. Not for a text. */
  at?: string;
  /** Of an element: compare this attribute instead of the text. */
  attribute?: string;
  /** Of a record. */
  type?: string;
  is: Comparison;
  value?: string;
  /** Of element, header and text: on the home page only, or on every page. */
  on?: 'home' | 'pages';
}

/** A check of the agency's own: manual, or made of one building block. */
export interface OwnCheck {
  /** Begins with "own.". */
  id: string;
  section: Section;
  title: string;
  /** What is wrong when it failed. */
  fault?: string;
  why?: string;
  /** What to do about it, or how to do it. */
  steps?: string;
  severity: Severity;
  situations: Situation[];
  /** None: it is manual. */
  test?: OwnTest;
  /** Days an attestation holds. */
  goodForDays?: number;
}

/** A named selection of checks. Checks it does not mention are left out. */
export interface Checklist {
  name: string;
  version: number;
  description?: string;
  items: ChecklistItem[];
  own?: OwnCheck[];
}

/** A manual check, as somebody vouched for it. */
export interface Attestation {
  check: string;
  /** One of several things the check is about, such as one form; none: all of them. */
  place?: string;
  done: boolean;
  /** The check has nothing to do with this site; wins over `done`. */
  doesNotApply?: boolean;
  by: string;
  /** ISO 8601 date-time. */
  at: string;
  note?: string;
  /** ISO 8601 date or date-time after which it no longer counts. */
  goodUntil?: string;
  /** It counts while the site is in this stage. */
  goodWhile?: Stage;
}

/** A place, and what was found there. */
export interface AcceptedPlace extends Message {
  place: string;
}

/** A fault agreed to be left for named places and the values found there. */
export interface Acceptance {
  check: string;
  places: AcceptedPlace[];
  reason: string;
  by: string;
  /** A blocker needs a second person; without one its acceptance does not count. */
  seconded?: string;
  /** ISO 8601 date on which it ends. */
  until: string;
}
