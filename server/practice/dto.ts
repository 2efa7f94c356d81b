/** What the practice net's screens send. */
import { MOST_TEXTS, TEXT_LIMITS } from '#core/facts/intended-text';
import { ArrayMaxSize, IsArray, IsBoolean, IsInt, MaxLength, Min } from '../platform/http/validation';

export class TypeTextsDto {
  @IsInt() @Min(1) environmentId!: number;
  @IsArray() @ArrayMaxSize(MOST_TEXTS) @MaxLength(TEXT_LIMITS.path, { each: true }) paths!: string[];
}

export class UploadPicturesDto {
  @IsInt() @Min(1) environmentId!: number;
}

export class PracticeNightDto {
  /** Begin a night, or go back to the real time. */
  @IsBoolean() on!: boolean;
}
