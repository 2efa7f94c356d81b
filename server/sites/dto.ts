/** What the screens send about sites. */
import { STAGES, type Stage } from '#core/facts/situation';
import {
  ArrayMaxSize,
  IsArray,
  IsEmail,
  IsIn,
  IsInt,
  IsName,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  IsBoolean,
  IsOptional,
  Transform,
  Type,
} from '#server/platform/http/validation';

export { BriefDto } from '#core/entry/brief';
export { NewSiteDto, EnvironmentDto, ReadSiteDto, SiteChangeDto } from '#core/entry/site';

const ROSTER_COLUMNS = ['site', 'stage', 'score', 'gate', 'fixes', 'audit'] as const;

/** Which sites the roster shows, and which window of it. */
export class RosterDto {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
  @IsOptional() @IsIn(STAGES) stage?: Stage;
  @IsOptional() @IsIn(ROSTER_COLUMNS) by?: (typeof ROSTER_COLUMNS)[number];
  /** `1`: turned round. */
  @IsOptional() @IsIn(['1']) down?: string;
  /** What the window before said that it goes on by. */
  @IsOptional() @IsString() @MaxLength(191) after?: string;
  @IsOptional() @Type(() => Number) @IsInt() @Min(1) @Max(200) limit?: number;
}

export class FindSitesDto {
  @IsOptional() @IsString() @MaxLength(200) words?: string;
}

export class ClientsDto extends FindSitesDto {
  /** The last name of the window before. */
  @IsOptional() @IsString() @MaxLength(200) after?: string;
}

export class ClientDto {
  @IsString() @IsName() @Length(1, 200) name!: string;
}

export class MergeDto {
  @IsInt() @Min(1) into!: number;
}

/** What is being entered, to see what is there already. */
export class AlikeDto {
  @IsOptional() @IsString() @MaxLength(200) client?: string;
  /** None, one or several, as a query string has them. */
  @Transform(({ value }: { value: unknown }) => [value].flat())
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  @MaxLength(2000, { each: true })
  urls?: string[];
  @IsOptional() @Type(() => Number) @IsInt() @Min(1) except?: number;
}

export class BringBackDto {
  @IsInt() @Min(1) version!: number;
}

/** A finding's place whose found value goes into the brief. */
export class AdoptDto {
  @IsInt() @Min(1) environmentId!: number;
  @IsString() @Matches(/^[a-z]+\.[a-z0-9-]+$/) check!: string;
  @IsString() @MaxLength(3000) place!: string;
}

export class CsvDto {
  @IsString() @Length(1, 3_000_000) text!: string;
  @IsOptional() @IsBoolean() onlyGood?: boolean;
}

export class ContactDto {
  @IsString() @Length(1, 120) @IsName() name!: string;
  @IsEmail({ require_tld: false }) @Length(3, 254) email!: string;
  @IsOptional() @IsString() @MaxLength(120) role?: string;
}
