/** What the screens send about sites. */
import {
  ArrayMaxSize,
  IsArray,
  IsInt,
  IsString,
  Length,
  Matches,
  MaxLength,
  Min,
  IsBoolean,
  IsOptional,
} from '../platform/http/validation';

export { BriefDto } from '#core/entry/brief';
export { NewSiteDto, EnvironmentDto, ReadSiteDto, AccessDto, SiteChangeDto } from '#core/entry/site';

export class ClientDto {
  @IsString() @Matches(/\S/) @Length(1, 200) name!: string;
}

export class MergeDto {
  @IsInt() @Min(1) into!: number;
}

/** What is being entered, to see what is there already. */
export class AlikeDto {
  @IsOptional() @IsString() @MaxLength(200) client?: string;
  @IsArray() @ArrayMaxSize(20) @IsString({ each: true }) @MaxLength(2000, { each: true }) urls!: string[];
  @IsOptional() @IsInt() @Min(1) except?: number;
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
