/** A site as it is added. */
import type { AccessKind } from '#core/facts/evidence';
import { STAGES, type EnvironmentKind, type Stage } from '#core/facts/situation';
import { MOST_PAGES } from '#core/facts/page-limit';
import { BriefDto } from './brief';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsDay,
  IsIn,
  IsInt,
  IsName,
  IsOptional,
  IsString,
  IsWebAddress,
  Length,
  Max,
  MaxLength,
  Min,
  Type,
  ValidateIf,
  ValidateNested,
} from './validation';

/** A day, or nothing to empty the field. */
const isGiven =
  <K extends string>(field: K) =>
  (o: { [F in K]?: unknown }): boolean =>
    o[field] !== undefined && o[field] !== null && o[field] !== '';

export class AccessDto {
  @IsIn(['open', 'credentials', 'parameter', 'cookie', 'addresses']) kind!: AccessKind;
  /** User name, or name of the parameter or cookie. */
  @IsOptional() @IsString() @MaxLength(200) name?: string;
  /** Password or value; blank keeps the one that is kept. */
  @IsOptional() @IsString() @MaxLength(500) value?: string;
}

export class EnvironmentDto {
  @IsString() @IsName() @Length(1, 80) name!: string;
  @IsWebAddress() url!: string;
  /** The live one where a site has none yet; else one before it. */
  @IsOptional() @IsIn(['before', 'live']) kind?: EnvironmentKind;
  @IsOptional() @ValidateNested() @Type(() => AccessDto) access?: AccessDto;
  @ValidateIf(isGiven('setUpOn')) @IsDay() setUpOn?: string;
  @ValidateIf(isGiven('changedOn')) @IsDay() changedOn?: string;
  @ValidateIf(isGiven('endsOn')) @IsDay() endsOn?: string;
}

export class NewSiteDto {
  @IsString() @IsName() @Length(1, 200) name!: string;
  @IsString() @IsName() @Length(1, 200) client!: string;
  /** Blank while the site has none yet. */
  @IsOptional() @IsWebAddress() liveUrl?: string;
  @IsArray()
  @ArrayMaxSize(20)
  @ValidateNested({ each: true })
  @Type(() => EnvironmentDto)
  environments!: EnvironmentDto[];
  @IsIn(STAGES) stage!: Stage;
  @IsBoolean() replaces!: boolean;
  @ValidateIf((o: NewSiteDto) => o.launchDate !== undefined && o.launchDate !== null)
  @IsDay()
  launchDate?: string;
  @IsOptional() @IsString() @MaxLength(200) hostProfile?: string;
  @IsOptional() @IsInt() @Min(1) ownerId?: number;
  @IsOptional() @IsInt() @Min(1) @Max(MOST_PAGES) pageLimit?: number;
  @ValidateNested() @Type(() => BriefDto) brief!: BriefDto;
}

/** What is kept of a site itself. What is not given stays; an empty text or 0 takes it away. */
export class SiteChangeDto {
  @IsOptional() @IsString() @IsName() @Length(1, 200) name?: string;
  @IsOptional() @IsString() @IsName() @Length(1, 200) client?: string;
  @IsOptional() @IsIn(STAGES) stage?: Stage;
  @IsOptional() @IsBoolean() replaces?: boolean;
  @ValidateIf(isGiven('launchDate')) @IsDay() launchDate?: string;
  @IsOptional() @IsString() @MaxLength(200) hostProfile?: string;
  @IsOptional() @IsInt() @Min(0) ownerId?: number;
  @IsOptional() @IsInt() @Min(0) @Max(MOST_PAGES) pageLimit?: number;
}

export class ReadSiteDto {
  @IsWebAddress() url!: string;
  /** Whether it is the live address or one before it; what is live is never read from staging. */
  @IsOptional() @IsIn(['live', 'before']) kind?: 'live' | 'before';
  @IsOptional() @ValidateNested() @Type(() => AccessDto) access?: AccessDto;
}
