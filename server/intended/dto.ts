/** What the text bench sends. */
import { TEXT_LIMITS, TEXTS_AT_ONCE } from '#core/facts/intended-text';
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
} from '#server/platform/http/validation';

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

/** In which environment it is told whether they were seen. */
export class SeenInDto {
  @Type(() => Number) @IsInt() @Min(1) environment!: number;
}

export class TextPathDto {
  @IsString() @Matches(/^\//) @MaxLength(TEXT_LIMITS.path) path!: string;
}
