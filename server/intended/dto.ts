/** What the text bench sends. */
import { TEXT_LIMITS } from '#core/facts/intended-text';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsInt,
  IsOptional,
  IsString,
  Matches,
  MaxLength,
  Min,
  Type,
  ValidateNested,
} from '../platform/http/validation';

/** Pages of one request; more are sent in several. */
export const TEXTS_AT_ONCE = 1000;

export class TextDto {
  @IsString() @Matches(/^\//) @MaxLength(TEXT_LIMITS.path) path!: string;
  /** Empty: none is wanted of it. */
  @IsOptional() @IsString() @MaxLength(TEXT_LIMITS.title) title?: string;
  @IsOptional() @IsString() @MaxLength(TEXT_LIMITS.description) description?: string;
  /** The version that it was changed from; 0 for a page without one. */
  @IsOptional() @IsInt() @Min(0) from?: number;
}

export class TextsDto {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(TEXTS_AT_ONCE)
  @ValidateNested({ each: true })
  @Type(() => TextDto)
  texts!: TextDto[];
}

export class TextPathDto {
  @IsString() @Matches(/^\//) @MaxLength(TEXT_LIMITS.path) path!: string;
}
