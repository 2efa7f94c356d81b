/** What the screens ask of audits. */
import { SECTIONS, type Section } from '#core/facts/finding';
import { PARTS, type Part } from '#core/facts/parts';
import { FINDING_FORMAT_NAMES, type FindingFormat } from '#core/formats/findings/index';
import { LEDGER_SHOWS, type LedgerShow } from '#core/score/ledger';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIds,
  IsIn,
  IsInt,
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
import { MOST_CHOSEN } from '#server/platform/windows';

/** Which checks the ledger shows. */
export class LedgerDto {
  @IsOptional() @IsIn(LEDGER_SHOWS) show?: LedgerShow;
  @IsOptional() @IsString() @MaxLength(200) words?: string;
  /** `1`: without what only rests on another check. */
  @IsOptional() @IsIn(['1']) reached?: string;
}

export class FoldedDto {
  @IsIn(SECTIONS) section!: Section;
  @IsOptional() @IsString() @MaxLength(200) words?: string;
}

export class PlacesDto {
  @Type(() => Number) @IsInt() @Min(0) from!: number;
}

/** Of which place commands are asked for. */
export class CommandsDto {
  @IsString() @Length(1, 3000) place!: string;
}

/** In which format findings are asked for. */
export class FindingsFileDto {
  @IsIn(FINDING_FORMAT_NAMES) as!: FindingFormat;
}

/** One page of an audit. */
export class PageDto {
  @IsString() @MaxLength(4000) url!: string;
}

export class SeenPictureDto {
  @Matches(/^[0-9a-f]{64}$/, { message: 'sha256 must be a digest as the evidence names it' }) sha256!: string;
}

export class HistoryDto {
  /** What the window before said that it goes on by. */
  @IsOptional() @Matches(/^\d{1,10}-\d{1,10}$/) after?: string;
}

/** What is looked at again, where not everything is. */
export class ScopeDto {
  @IsOptional() @IsArray() @IsIn(PARTS, { each: true }) parts?: Part[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(300)
  @IsString({ each: true })
  @MaxLength(80, { each: true })
  checks?: string[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(200)
  @IsString({ each: true })
  @MaxLength(2000, { each: true })
  pages?: string[];
}

export class StartAuditsDto {
  @IsIds(MOST_CHOSEN) environmentIds!: number[];
  @IsOptional() @ValidateNested() @Type(() => ScopeDto) scope?: ScopeDto;
}

export class AttestDto {
  @IsString() @Matches(/^[a-z]+\.[a-z0-9-]+$/) check!: string;
  @IsBoolean() done!: boolean;
  /** It has nothing to do with this site; the note says why. */
  @IsOptional() @IsBoolean() doesNotApply?: boolean;
  @IsOptional() @IsString() @MaxLength(1000) note?: string;
  /** One of the things the check is about, such as a form. */
  @IsOptional() @IsString() @Length(1, 300) place?: string;
  @IsOptional() @IsInt() @Min(1) @Max(3650) goodForDays?: number;
  @IsOptional() @IsBoolean() untilStageChanges?: boolean;
  @IsOptional() @IsInt() @Min(1) attachmentId?: number;
}
