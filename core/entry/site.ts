/** A site as it is taken on. */
import type { WayInKind } from '#core/facts/evidence';
import { STAGES, type Stage } from '#core/facts/situation';
import { BriefDto } from './brief';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsDay,
  IsIn,
  IsOptional,
  IsString,
  IsUrl,
  Length,
  Matches,
  MaxLength,
  Type,
  ValidateIf,
  ValidateNested,
} from './validation';

const ADDRESS = {
  protocols: ['http', 'https'],
  require_protocol: true,
  require_tld: false,
  allow_underscores: true,
};
/** A day, or nothing to empty the field. */
const DAY = /^(?:\d{4}-(?:0[1-9]|1[0-2])-(?:0[1-9]|[12]\d|3[01]))?$/;
const DAY_MESSAGE = 'must be a date such as 2026-12-01';

export class WayInDto {
  @IsIn(['open', 'credentials', 'parameter', 'cookie', 'addresses']) kind!: WayInKind;
  /** User name, or name of the parameter or cookie. */
  @IsOptional() @IsString() @MaxLength(200) name?: string;
  /** Password or value; blank keeps the one that is kept. */
  @IsOptional() @IsString() @MaxLength(500) value?: string;
}

export class PlaceDto {
  @IsString() @Length(1, 80) name!: string;
  @IsUrl(ADDRESS) @MaxLength(2000) url!: string;
  @IsOptional() @ValidateNested() @Type(() => WayInDto) wayIn?: WayInDto;
  @IsOptional() @Matches(DAY, { message: `setUpOn ${DAY_MESSAGE}` }) setUpOn?: string;
  @IsOptional() @Matches(DAY, { message: `changedOn ${DAY_MESSAGE}` }) changedOn?: string;
  @IsOptional() @Matches(DAY, { message: `endsOn ${DAY_MESSAGE}` }) endsOn?: string;
}

export class NewSiteDto {
  @IsString() @Length(1, 200) name!: string;
  @IsString() @Length(1, 200) client!: string;
  @IsUrl(ADDRESS) @MaxLength(2000) liveUrl!: string;
  @IsArray() @ArrayMaxSize(20) @ValidateNested({ each: true }) @Type(() => PlaceDto) places!: PlaceDto[];
  @IsIn(STAGES) stage!: Stage;
  @IsBoolean() replaces!: boolean;
  @ValidateIf((o: NewSiteDto) => o.launchDate !== undefined && o.launchDate !== null)
  @IsDay()
  launchDate?: string;
  @IsOptional() @IsString() @MaxLength(200) hostProfile?: string;
  @ValidateNested() @Type(() => BriefDto) brief!: BriefDto;
}

export class ReadSiteDto {
  @IsUrl(ADDRESS) @MaxLength(2000) url!: string;
}
