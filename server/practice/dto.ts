/** What the practice net's screens send. */
import { MOST_TEXTS, TEXT_LIMITS } from '#core/facts/intended-text';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
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

export class TypeTextsDto {
  @IsInt() @Min(1) environmentId!: number;
  @IsArray() @ArrayMaxSize(MOST_TEXTS) @MaxLength(TEXT_LIMITS.path, { each: true }) paths!: string[];
}

export class UploadPicturesDto {
  @IsInt() @Min(1) environmentId!: number;
}

export class DeskOfDto {
  @Matches(/^[a-z-]{1,40}$/) site!: string;
}

/** What somebody does at a practice site’s registrar, DNS operator and host. */
export class DeskChangeDto {
  @IsOptional() @IsString() @MaxLength(60_000) zone?: string;
  @IsOptional() @IsNumber() @Min(0) @Max(10_080) slowMinutes?: number;
  @IsOptional() @IsNumber() @Min(0) @Max(10_080) lagMinutes?: number;
  @IsOptional() @IsBoolean() refuses?: boolean;
  @IsOptional() @IsBoolean() isMoved?: boolean;
  @IsOptional() @IsBoolean() hostTold?: boolean;
  @IsOptional() @IsBoolean() holdingUp?: boolean;
}

export class DeskDto extends DeskOfDto {
  @ValidateNested() @Type(() => DeskChangeDto) change!: DeskChangeDto;
}

/** How many times as fast as real time the demo’s clock can run; 2880 lets two days pass in a minute. */
export const RATES = [1, 60, 360, 2880] as const;

export class PracticeClockDto {
  @IsIn(RATES) rate!: (typeof RATES)[number];
}

export class PracticeNightDto {
  /** Begin a night, or go back to the real time. */
  @IsBoolean() on!: boolean;
}

export class FaultSwitchDto {
  @IsString() @Length(1, 80) site!: string;
  @IsIn(['live', 'staging']) environment!: 'live' | 'staging';
  @IsString() @Length(1, 80) fault!: string;
  @IsBoolean() on!: boolean;
}
