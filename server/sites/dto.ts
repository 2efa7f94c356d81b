/** What the screens send about sites. */
import { STAGES, type Stage } from '#core/facts/situation';
import {
  IsIn,
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
export { NewSiteDto, PlaceDto, ReadSiteDto, WayInDto } from '#core/entry/site';

export class StageDto {
  @IsIn(STAGES) stage!: Stage;
}

export class BringBackDto {
  @IsInt() @Min(1) version!: number;
}

/** A finding's place whose found value goes into the brief. */
export class TakeDto {
  @IsInt() @Min(1) environmentId!: number;
  @IsString() @Matches(/^[a-z]+\.[a-z0-9-]+$/) check!: string;
  @IsString() @MaxLength(3000) place!: string;
}

export class CsvDto {
  @IsString() @Length(1, 3_000_000) text!: string;
  @IsOptional() @IsBoolean() onlyGood?: boolean;
}
