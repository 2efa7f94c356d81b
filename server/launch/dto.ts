/** What the screens send about launches, their steps, accounts, the agency’s run sheet and watches. */
import {
  ACCOUNT_KINDS,
  CONDITION_NAMES,
  PERFORMERS,
  PASTE_KINDS,
  PHASES,
  PROOF_KINDS,
  type AccountKind,
  type Condition,
  type Performer,
  type LaunchTemplate,
  type PasteKind,
  type Phase,
  type Proof,
  type ProofKind,
  type SiteAccount,
  type TemplateStep,
} from '#core/facts/launch';
import { SHARE_ANSWERS, type ShareAnswer } from '#core/launch/shared-address';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsISO8601,
  IsNumber,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  Type,
  ValidateNested,
} from '#server/platform/http/validation';

const SAYS_SOMETHING = /\S/;
const STEP_ID = /^[a-z0-9][a-z0-9-]{0,59}$/;
const YEAR_HOURS = 24 * 366;

export class BeginLaunchDto {
  @IsISO8601({ strict: true }) @MaxLength(40) plannedAt!: string;
}

const STEP_ACTS = ['done', 'undo', 'leave out', 'take up', 'own'] as const;
export type StepAct = (typeof STEP_ACTS)[number];

export class StepActDto {
  @IsIn(STEP_ACTS) act!: StepAct;
  /** A note to what is done; why it is left out. */
  @IsOptional() @IsString() @MaxLength(2000) text?: string;
  @IsOptional() @IsInt() @Min(1) ownerId?: number;
  @IsOptional() @IsInt() @Min(1) contactId?: number;
  @IsOptional() @IsString() @MaxLength(120) outside?: string;
}

export class StepLookDto {
  @Matches(STEP_ID) step!: string;
}

export class GoDto {
  /** Why to go although something is against it: the first person asks. */
  @IsOptional() @IsString() @MaxLength(2000) reason?: string;
  /** When the first person asked: the second one agrees to that. */
  @IsOptional() @IsISO8601() @MaxLength(40) agreesTo?: string;
  /** Codes of what the screen showed to be against it. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(500)
  @IsString({ each: true })
  @MaxLength(2000, { each: true })
  seen?: string[];
}

export class EndLaunchDto {
  @IsIn(['done', 'given up']) how!: 'done' | 'given up';
  @IsOptional() @IsString() @MaxLength(4000) learnt?: string;
}

/** @see Share */
export class ShareAnswerDto {
  @IsString() @Length(1, 600) share!: string;
  /** Nothing takes an answer back. */
  @IsOptional() @IsIn(SHARE_ANSWERS) answer?: ShareAnswer;
}

export class AccountDto implements SiteAccount {
  @IsIn(ACCOUNT_KINDS) kind!: AccountKind;
  @IsString() @MaxLength(120) operator!: string;
  @IsString() @MaxLength(200) holder!: string;
  @IsString() @MaxLength(400) access!: string;
  @IsString() @MaxLength(200) payer!: string;
  @IsBoolean() hasTransferCode!: boolean;
  @IsString() @MaxLength(2000) note!: string;
}

export class ProofDto implements Proof {
  @IsIn(PROOF_KINDS) kind!: ProofKind;
  @IsOptional() @IsIn(['live', 'before']) environment?: 'live' | 'before';
  @IsOptional() @Matches(/^[a-z]+\.[a-z0-9-]{1,80}$/) check?: string;
}

export class TemplateStepDto implements TemplateStep {
  @Matches(STEP_ID) id!: string;
  @IsString()
  @Length(1, 120)
  @Matches(SAYS_SOMETHING, { message: 'title must say something' })
  title!: string;
  @IsString() @MaxLength(1000) what!: string;
  @IsIn(PHASES) phase!: Phase;
  @IsNumber() @Min(-YEAR_HOURS) @Max(YEAR_HOURS) offsetHours!: number;
  @IsIn(CONDITION_NAMES) when!: Condition;
  @IsOptional() @IsIn(ACCOUNT_KINDS) where?: AccountKind;
  @IsIn(PERFORMERS) who!: Performer;
  @IsArray() @ArrayMaxSize(20) @Matches(STEP_ID, { each: true }) after!: string[];
  @IsArray()
  @ArrayMaxSize(12)
  @ValidateNested({ each: true })
  @Type(() => ProofDto)
  proofs!: ProofDto[];
  @IsOptional() @IsString() @MaxLength(1000) back?: string;
  @IsOptional() @IsIn(PASTE_KINDS) paste?: PasteKind;
  @IsOptional() @IsInt() @Min(1) @Max(10_000) minutes?: number;
  @IsOptional() @IsBoolean() isLong?: boolean;
}

export class LaunchTemplateDto implements LaunchTemplate {
  @IsArray()
  @ArrayMaxSize(120)
  @ValidateNested({ each: true })
  @Type(() => TemplateStepDto)
  steps!: TemplateStepDto[];
}

export class LaunchFileDto {
  @IsIn(['markdown', 'icalendar']) as!: 'markdown' | 'icalendar';
}
