/** What a check is: data plus a pure function. */
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import type { Finding, Judgement, Scope, Section, Severity } from '#core/facts/finding';
import type { AgencyBook } from '#core/facts/agency-book';
import type { HostProfile } from '#core/facts/host-profile';
import type { PlaceDates, SiteBuild } from '#core/facts/place';
import type { Situation, Stage } from '#core/facts/situation';
import type { SiteView } from '#core/checks/view/site-view';

/** A number or switch that a checklist may set. `unit` is said on the screens. */
export interface ParameterSpec {
  default: number;
  min: number;
  max: number;
  unit: string;
  meaning: string;
}

/**
 * What has to be there before a check can look at anything: an answer over TLS for hosts, pages for the rest.
 */
export type Need = 'name' | 'tls' | 'pages';

/** How to mend a fault, with text ready to paste. */
export interface Recipe {
  steps: string;
  paste?: { label: string; text: string }[];
}

export interface CheckContext {
  situation: Situation;
  at: Date;
  brief: Brief;
  profile: HostProfile;
  evidence: Evidence;
  view: SiteView;
  parameters: Record<string, number>;
  /** What the agency knows of its other clients. */
  book?: AgencyBook;
  stage?: Stage;
  /**
   * Whether the site is launched, where that is known; it decides what is wanted of a place before the live
   * one.
   */
  launched?: boolean;
  /** The latest audit of the place before the live one. */
  staging?: Evidence;
  build?: SiteBuild;
  place?: PlaceDates;
  /** Whether somebody vouches for a check by hand, for one that asks less where it is done. */
  isAttested?(byHand: Check): boolean;
}

export interface Check {
  /** Stable: scripts and reports rest on it. */
  id: string;
  section: Section;
  title: string;
  /** Why it matters, in one sentence. */
  why: string;
  severity: Severity;
  situations: readonly Situation[];
  scope: Scope;
  /** The standard it rests on, or "common practice". Values from memory say so. */
  source: string;
  needs?: Need;
  parameters?: Record<string, ParameterSpec>;
  /** A failing place spends the whole weight. */
  allOrNothing?: boolean;
  /** Done by a person and attested; `judge` is not called. */
  byHand?: boolean;
  /** How long an attestation holds unless it says otherwise, in days. */
  attestedForDays?: number;
  /** What a check by hand is about one by one, such as each form; without it, the site as a whole. */
  subjects?(context: CheckContext): string[];
  judge(context: CheckContext): Judgement;
  recipe(context: CheckContext, finding: Finding): Recipe;
}

const S = 'staging',
  H = 'holding',
  F = 'former',
  L = 'live';
/** The letters of the catalogue's "where" column, as situations. */
export function where(letters: string): Situation[] {
  return [...letters].map((l) => (({ S, H, F, L }) as const)[l as 'S']).filter(Boolean) as Situation[];
}

type HandParts = Pick<Check, 'id' | 'section' | 'title' | 'why' | 'severity' | 'situations' | 'source'> & {
  how: string;
  attestedForDays?: number;
};

/** A check that a person does and attests. */
export function handCheck({ how, ...parts }: HandParts): Check {
  return {
    ...parts,
    scope: 'hand',
    byHand: true,
    judge: () => ({
      outcome: 'untested',
      reason: 'done by hand, not yet attested',
      expected: parts.title,
      places: [],
    }),
    recipe: () => ({ steps: how }),
  };
}
