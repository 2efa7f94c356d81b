import type { Part } from './parts';
import type { Fraction } from '#core/score/fraction';
import type { BriefField } from './brief';
import type { Adoption } from './adoption';
import type { Message } from './message';

/** Outcomes of the W3C Evaluation and Report Language (EARL 1.0). */
export type Outcome = 'passed' | 'failed' | 'cantTell' | 'inapplicable' | 'untested';
/** The gravest first. */
export const SEVERITIES = ['blocker', 'major', 'minor'] as const;
export type Severity = (typeof SEVERITIES)[number];
export type Section =
  'identity' | 'https' | 'domain' | 'indexing' | 'verification' | 'metadata' | 'sharing' | 'delivery';
export type Scope =
  | 'site'
  | 'page'
  | 'host'
  | 'record'
  | 'domain'
  | 'token'
  | 'image'
  | 'path'
  | 'asset'
  | 'link'
  | 'line'
  | 'file'
  | 'font'
  | 'form'
  | 'hand';

/** The sections in the order of the band. */
export const SECTIONS: readonly Section[] = [
  'identity',
  'https',
  'domain',
  'indexing',
  'verification',
  'metadata',
  'sharing',
  'delivery',
];
export const SECTION_TITLES: Record<Section, string> = {
  identity: 'Identity',
  https: 'HTTPS',
  domain: 'Domain',
  indexing: 'Indexing',
  verification: 'Verification',
  metadata: 'Metadata',
  sharing: 'Sharing',
  delivery: 'Delivery',
};
/** Points that a severity can lose unless the checklist says otherwise. */
export const SEVERITY_WEIGHT: Record<Severity, number> = { blocker: 20, major: 5, minor: 1 };

/** Where a check was applied, and what it saw there. */
export interface PlaceResult {
  place: string;
  outcome: 'passed' | 'failed' | 'cantTell';
  expected?: string;
  found?: string;
  /** The evidence as it came: a tag, header line or DNS answer. Foreign text: only ever shown as text. */
  raw?: string;
  reason?: string;
  /** What was found, or why it is undecided, as a code with its data; `found` and `reason` say it in English. */
  code: string;
  data?: Message['data'];
  /** How the brief would have it, if what was found is right. */
  adopt?: Adoption;
  /** Set when an acceptance covers this place. */
  accepted?: boolean;
}

/** What a check's pure function gives back. */
export interface Judgement {
  outcome: Outcome;
  expected?: string;
  found?: string;
  reason?: string;
  /** What was found, or why nothing was, as a code with its data; `found` and `reason` say it in English. */
  code: string;
  data?: Message['data'];
  /** Things worth saying that change nothing. */
  notes?: string[];
  /** The blank field of the brief that would decide it. */
  awaits?: BriefField;
  places: PlaceResult[];
}

/** One check's result in one audit. */
export interface Finding extends Judgement {
  check: string;
  section: Section;
  /** How it should be. */
  title: string;
  /** What is wrong when it failed. */
  fault: string;
  severity: Severity;
  weight: number;
  /** What share of the decided places holds; null when nothing was decided. */
  credit: Fraction | null;
  /** The credit without regard to acceptances, where anything is accepted. */
  creditAsFound?: Fraction | null;
  /** The share of the places that were seen, when fewer than all that are known. */
  seen?: { read: number; known: number };
  /** All failing places are covered by acceptances. */
  accepted?: boolean;
  byHand?: boolean;
  /** It looks for itself, and where it cannot tell a person may vouch for it. */
  attestable?: boolean;
  /** The agency's own remark on this line of the checklist. */
  note?: string;
  /** When the parts that it rests on were looked at, where that was not at once; the oldest first. */
  ages?: { part: Part; at: string }[];
}
