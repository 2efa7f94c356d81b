/** What the screens send about signing in, audits, fixes and attestations. */
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsDay,
  IsIds,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  Type,
  ValidateIf,
  ValidateNested,
} from '../platform/http/validation';
import { MOST_CHOSEN } from '../platform/windows';
import { PARTS, type Part } from '#core/facts/parts';
import { FIX_STATES, type FixState } from '#core/facts/fix';

/** What is looked at again, where not everything is. */
export class ScopeDto {
  @IsOptional() @IsArray() @IsIn(PARTS, { each: true }) parts?: Part[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(300)
  @IsString({ each: true })
  @MaxLength(80, { each: true })
  checks?: string[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(200)
  @IsString({ each: true })
  @MaxLength(2000, { each: true })
  pages?: string[];
}

export class StartAuditsDto {
  @IsIds(MOST_CHOSEN) environmentIds!: number[];
  @IsOptional() @ValidateNested() @Type(() => ScopeDto) scope?: ScopeDto;
}

export class FixChangeDto {
  @IsOptional() @IsIn(FIX_STATES) state?: FixState;
  /** 0 takes the owner away. */
  @IsOptional() @IsInt() @Min(0) ownerId?: number;
  /** A contact of the client who does it. */
  @IsOptional() @IsInt() @Min(1) contactId?: number;
  /** Empty takes the date away. */
  @ValidateIf((o: FixChangeDto) => o.dueDate !== undefined && o.dueDate !== '')
  @IsDay()
  dueDate?: string;
  @IsOptional() @IsString() @Length(1, 2000) comment?: string;
}

const FIX_SORTS = ['worst', 'site', 'person', 'due'] as const;

/** Which fixes a list shows, and which window of it. */
export class FixesDto {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
  @IsOptional() @IsString() @MaxLength(80) check?: string;
  @IsOptional() @Type(() => Number) @IsInt() @Min(1) site?: number;
  /** A person's number, `me`, `nobody`, or `client`: any contact. */
  @IsOptional() @Matches(/^(?:me|nobody|client|\d{1,9})$/) owner?: string;
  /** `1`: those verified and gone, in place of the others. */
  @IsOptional() @IsIn(['1']) closed?: string;
  @IsOptional() @IsIn(FIX_SORTS) sort?: (typeof FIX_SORTS)[number];
  /** What the window before said that it goes on by. */
  @IsOptional() @IsString() @MaxLength(191) after?: string;
  @IsOptional() @Type(() => Number) @IsInt() @Min(1) @Max(200) limit?: number;
}

/** The environments that a fault's texts are asked for, by their numbers with commas. */
export class RecipeDto {
  @IsString() @Matches(/^[a-z]+\.[a-z0-9-]+$/) check!: string;
  @IsString() @Matches(/^[1-9]\d{0,9}(?:,[1-9]\d{0,9}){0,199}$/) environments!: string;
}

/** So many fixes are changed or looked at in one go. */
const MOST_CHANGED = 500;

/** Some fixes. */
export class FixIdsDto {
  @IsIds(MOST_CHANGED) ids!: number[];
}

export class FixesChangeDto extends FixChangeDto {
  @IsIds(MOST_CHANGED) ids!: number[];
}

export class AcceptDto {
  @IsString() @Length(3, 1000) reason!: string;
  @IsDay() until!: string;
}

export class AttestDto {
  @IsString() @Matches(/^[a-z]+\.[a-z0-9-]+$/) check!: string;
  @IsBoolean() done!: boolean;
  /** It has nothing to do with this site; the note says why. */
  @IsOptional() @IsBoolean() doesNotApply?: boolean;
  @IsOptional() @IsString() @MaxLength(1000) note?: string;
  /** One of the things the check is about, such as a form. */
  @IsOptional() @IsString() @Length(1, 300) place?: string;
  @IsOptional() @IsInt() @Min(1) @Max(3650) goodForDays?: number;
  @IsOptional() @IsBoolean() untilStageChanges?: boolean;
  @IsOptional() @IsInt() @Min(1) attachmentId?: number;
}

export class FaultSwitchDto {
  @IsString() @Length(1, 80) site!: string;
  @IsIn(['live', 'staging']) environment!: 'live' | 'staging';
  @IsString() @Length(1, 80) fault!: string;
  @IsBoolean() on!: boolean;
}
