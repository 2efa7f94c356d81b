/** What a check is: data plus a pure function. */
import type { Brief, BriefField } from '#core/facts/brief';
import type { Evidence, HostEvidence } from '#core/facts/evidence';
import type { Finding, Judgement, Scope, Section, Severity } from '#core/facts/finding';
import type { AgencyBook } from '#core/facts/agency-book';
import type { Approval } from '#core/facts/approval';
import type { HostProfile } from '#core/facts/host-profile';
import type { Fact } from '#core/facts/fact-names';
import type { Part } from '#core/facts/parts';
import type { Message } from '#core/facts/message';
import type { IntendedText } from '#core/facts/intended-text';
import type { EnvironmentDates, SiteBuild } from '#core/facts/environment';
import type { Situation, Stage } from '#core/facts/situation';
import type { SiteView } from '#core/checks/view/site-view';
import { defineMessages } from '#core/text/messages';
import { commonMessage, type Unit } from '#core/text/common-messages';

/** A number or switch that a checklist may set. `unit` is said on the screens. */
export interface ParameterSpec {
  default: number;
  min: number;
  max: number;
  unit: string;
  meaning: string;
}
export type ParameterSpecs = Record<string, ParameterSpec>;

/**
 * What has to be there before a check can say anything. The engine sees to all of it:
 * - `brief`: fields without which the check is untested (unfilled) or inapplicable (none wanted), by rule 2;
 *   `judge` finds them filled;
 * - `pages`: pages that can be judged; where there are none, it rests on the check that says why (rule 3);
 * - `hosts`: each host shows the site; one with a parking or unknown-name page rests on domain.connected;
 * - `tls`: each host has finished a handshake; another rests on https.answers or domain.resolves;
 * - `records`: names were looked up at all;
 * - `rendered`: a browser has looked at pages; without one the check cannot tell.
 */
export interface Needs<Field extends BriefField = BriefField> {
  brief?: readonly Field[];
  pages?: true;
  hosts?: true;
  tls?: true;
  records?: true;
  rendered?: true;
}

/** A host of the site as a check meets it. */
export interface AskedHost {
  evidence: HostEvidence;
  /** The check that this host rests on, and why, where something that is needed is missing. */
  blockedBy?: Message;
}

/** What a check says of itself, once its parameters and the brief are known. */
export interface Words {
  /** What a good place looks like. */
  expected?: string;
  /** One of the things that it looks at, where that is not the scope's own word. */
  unit: Unit;
  /** Why there is nothing to look at, where that is proven. */
  none?: Message;
  /** What its places are. */
  scope: Scope;
}

/** How to put a fault right, with text ready to paste. */
export interface Recipe {
  steps: string;
  paste?: { label: string; text: string }[];
}

export interface CheckContext<
  Specs extends ParameterSpecs = ParameterSpecs,
  Field extends BriefField = never,
> {
  situation: Situation;
  at: Date;
  brief: Brief & { [K in Field]-?: NonNullable<Brief[K]> };
  profile: HostProfile;
  evidence: Evidence;
  view: SiteView;
  parameters: { readonly [K in keyof Specs]: number };
  words: Words;
  /** The hosts of the site; what `needs` asks of them is seen to. */
  hosts: readonly AskedHost[];
  /** What the agency knows of its other clients. */
  book?: AgencyBook;
  stage?: Stage;
  /** Whether the site is launched, where that is known; it decides what is wanted of an environment before the live one. */
  launched?: boolean;
  /** The latest audit of the environment before the live one. */
  staging?: Evidence;
  build?: SiteBuild;
  /** The newest yes of a contact that stands. */
  approval?: Approval;
  /** The evidence that it was said to. */
  approved?: Evidence;
  environment?: EnvironmentDates;
  /** The texts that the agency wrote for pages of the site. */
  intended?: readonly IntendedText[];
  /** Whether somebody vouches for a manual check, for one that asks less where it is done. */
  isAttested?(byHand: Check): boolean;
}

/** What every check says of itself. */
interface CheckFacts {
  /** Stable: scripts and reports rest on it. In the catalogue its first word is the section. */
  id: string;
  /** How it should be, at most 60 characters. */
  title: string;
  /** What is wrong when it failed, at most 60 characters. */
  fault: string;
  /** What goes wrong without it, in one sentence. */
  why: string;
  severity: Severity;
  situations: readonly Situation[];
  /** The standard it rests on, or "common practice". Values from memory say so. */
  source: string;
}

/** The texts of a check as data; `expected` may follow from the brief and the parameters. */
interface Messages<Context> extends Partial<Pick<Words, 'unit'>> {
  expected?: string | ((context: Omit<Context, 'words'>) => string);
  /** Why there is nothing to look at, where that is proven. */
  none?: string;
}

/** A check that looks for itself, as its file writes it. */
export interface CheckDefinition<Specs extends ParameterSpecs, Field extends BriefField> extends CheckFacts {
  id: `${Section}.${string}`;
  /** What a place is. */
  scope: Exclude<Scope, 'hand'>;
  needs?: Needs<Field>;
  /** The parts of the evidence that it reads, beside those that its needs name. */
  reads?: readonly Part[];
  /** The facts that it reads, beside those that all pages have. */
  facts?: readonly Fact[];
  parameters?: Specs;
  messages?: Messages<CheckContext<Specs, Field>>;
  /** Where it cannot tell or nobody was asked yet, a person may vouch for it: for so many days by default. */
  attestedForDays?: number;
  /** Why it is not applicable, told before anything that it needs is asked for. */
  exempt?(context: Pick<CheckContext, 'brief'>): Message | undefined;
  judge(context: CheckContext<Specs, Field>): Judgement;
  recipe(context: CheckContext<Specs, Field>, finding: Finding): Recipe;
}

/** A check as the engine meets it, whatever its parameters and needs. */
export interface Check extends CheckFacts {
  section: Section;
  scope: Scope;
  needs: Needs;
  reads?: readonly Part[];
  facts?: readonly Fact[];
  parameters?: ParameterSpecs;
  messages: Messages<CheckContext>;
  none?: Message;
  exempt?(context: Pick<CheckContext, 'brief'>): Message | undefined;
  /** Done by a person and attested; `judge` is not called. */
  byHand?: boolean;
  /** How long an attestation holds unless it says otherwise, in days; a check with none of the two takes none. */
  attestedForDays?: number;
  /** Pictures that a person walks through to do it. */
  pictures?: 'phone';
  /** What a manual check is about one by one, such as each form; without it, the site as a whole. */
  subjects?(context: CheckContext): string[];
  judge(context: CheckContext): Judgement;
  recipe(context: CheckContext, finding: Finding): Recipe;
}

const sectionOf = (id: string): Section => id.slice(0, id.indexOf('.')) as Section;

/** Makes a check out of its definition; the types of parameters and of the needed fields follow from it. */
export function defineCheck<const Specs extends ParameterSpecs, const Field extends BriefField = never>(
  definition: CheckDefinition<Specs, Field>,
): Check {
  const { needs = {}, messages = {}, ...rest } = definition;
  const { id } = definition;
  const none = messages.none === undefined ? undefined : defineMessages(id, { none: messages.none })('none');
  // the engine gives each check what its own definition asks for, which one type for all cannot say
  return { ...rest, needs, messages, none, section: sectionOf(id) } as unknown as Check;
}

/** A manual check, as its file writes it: `how` says what there is to do, `recipe` where that depends on the site. */
type ManualDefinition = CheckFacts &
  Pick<Check, 'attestedForDays' | 'subjects' | 'pictures'> & { section?: Section } & (
    { how: string } | { recipe: Check['recipe'] }
  );

/** Makes a manual check, which a person does and attests. */
export function defineManualCheck(definition: ManualDefinition): Check {
  const recipe = 'how' in definition ? () => ({ steps: definition.how }) : definition.recipe;
  const { id, title, fault, why, severity, situations, source, attestedForDays, subjects, pictures } =
    definition;
  return {
    id,
    section: definition.section ?? sectionOf(id),
    title,
    fault,
    why,
    severity,
    situations,
    scope: 'hand',
    source,
    needs: {},
    messages: {},
    byHand: true,
    attestedForDays,
    subjects,
    pictures,
    judge: () => ({ outcome: 'untested', ...commonMessage('not-yet-attested'), places: [] }),
    recipe,
  };
}
