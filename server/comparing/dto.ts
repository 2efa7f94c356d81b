/** What the screens ask of comparisons. */
import { SCREENS, type Screen } from '#core/facts/rendered';
import { IsIn, IsInt, IsString, MaxLength, Min, Type } from '#server/platform/http/validation';

export class CompareDto {
  @Type(() => Number) @IsInt() @Min(1) first!: number;
  @Type(() => Number) @IsInt() @Min(1) second!: number;
}

/** One page on one screen. */
export class DrawnDto extends CompareDto {
  @IsString() @MaxLength(4000) path!: string;
  @IsIn(Object.keys(SCREENS)) screen!: Screen;
}
