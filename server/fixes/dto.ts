/** What the screens send about signing in, audits, fixes and attestations. */
import { FIX_STATES, type FixState } from '#core/facts/fix';
import {
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
} from '#server/platform/http/validation';

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
