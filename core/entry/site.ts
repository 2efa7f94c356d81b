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
  IsWebAddress,
  Length,
  MaxLength,
  Type,
  ValidateIf,
  ValidateNested,
} from './validation';

/** A day, or nothing to empty the field. */
const isGiven =
  <K extends string>(field: K) =>
  (o: { [F in K]?: unknown }): boolean =>
    o[field] !== undefined && o[field] !== null && o[field] !== '';

export class WayInDto {
  @IsIn(['open', 'credentials', 'parameter', 'cookie', 'addresses']) kind!: WayInKind;
  /** User name, or name of the parameter or cookie. */
  @IsOptional() @IsString() @MaxLength(200) name?: string;
  /** Password or value; blank keeps the one that is kept. */
  @IsOptional() @IsString() @MaxLength(500) value?: string;
}

export class PlaceDto {
  @IsString() @Length(1, 80) name!: string;
  @IsWebAddress() url!: string;
  @IsOptional() @ValidateNested() @Type(() => WayInDto) wayIn?: WayInDto;
  @ValidateIf(isGiven('setUpOn')) @IsDay() setUpOn?: string;
  @ValidateIf(isGiven('changedOn')) @IsDay() changedOn?: string;
  @ValidateIf(isGiven('endsOn')) @IsDay() endsOn?: string;
}

export class NewSiteDto {
  @IsString() @Length(1, 200) name!: string;
  @IsString() @Length(1, 200) client!: string;
  @IsWebAddress() liveUrl!: string;
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
  @IsWebAddress() url!: string;
  /** Whether it is the live address or one before it; what is live is never read from staging. */
  @IsOptional() @IsIn(['live', 'before']) kind?: 'live' | 'before';
  @IsOptional() @ValidateNested() @Type(() => WayInDto) wayIn?: WayInDto;
}
