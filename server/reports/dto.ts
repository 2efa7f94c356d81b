/** What the screens send about contacts, reports, share links, remarks and yeses. */
import { SEVERITIES, type Severity } from '#core/facts/finding';
import { SCREENS, type Screen } from '#core/facts/rendered';
import {
  REPORT_LANGUAGES,
  REPORT_PARTS,
  type ReportLanguage,
  type ReportPart,
  type ReportSetup,
} from '#core/report/setup';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsName,
  IsOptional,
  IsString,
  ValidateIf,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  Type,
  ValidateNested,
} from '#server/platform/http/validation';

const SAYS_SOMETHING = /\S/;
const CHECK = /^[a-z]+\.[a-z0-9-]{1,80}$/;

/** What all reports begin with. */
export class TemplateDto {
  @IsString() @MaxLength(120) @ValidateIf((o: TemplateDto) => o.name !== '') @IsName() name!: string;
  @Matches(/^#[0-9a-f]{6}$/i, { message: 'colour must be like #3a3f8f' }) colour!: string;
  @IsIn(REPORT_LANGUAGES) language!: ReportLanguage;
  @IsArray() @IsIn(REPORT_PARTS, { each: true }) parts!: ReportPart[];
  @IsString() @MaxLength(6000) letter!: string;
  @IsString() @MaxLength(200) signedBy!: string;
  @IsBoolean() smallToo!: boolean;
}
export type TemplateData = TemplateDto;

export class OwnWordsDto {
  @Matches(CHECK) check!: string;
  @IsString() @MaxLength(600) text!: string;
}

/** What is chosen for the report of one site. */
export class SetupDto implements ReportSetup {
  @IsIn(REPORT_LANGUAGES) language!: ReportLanguage;
  @IsArray() @IsIn(REPORT_PARTS, { each: true }) parts!: ReportPart[];
  @IsString() @MaxLength(6000) letter!: string;
  @IsString() @MaxLength(200) signedBy!: string;
  @IsBoolean() smallToo!: boolean;
  @IsArray() @ArrayMaxSize(400) @Matches(CHECK, { each: true }) leftOut!: string[];
  @IsArray()
  @ArrayMaxSize(400)
  @ValidateNested({ each: true })
  @Type(() => OwnWordsDto)
  words!: OwnWordsDto[];
}

export class DraftDto {
  @ValidateNested() @Type(() => SetupDto) setup!: SetupDto;
  /** The version that the change was made on. */
  @IsInt() @Min(0) from!: number;
}

export class ShownOfDto {
  @Type(() => Number) @IsInt() @Min(1) environment!: number;
}

export class PublishDto {
  @IsInt() @Min(1) environmentId!: number;
}

export class LinkDto {
  @IsInt() @Min(1) contactId!: number;
  @IsInt() @Min(1) @Max(365) days!: number;
  @IsOptional() @IsString() @Length(4, 200) passphrase?: string;
}

export class OpenDto {
  @IsOptional() @IsString() @MaxLength(200) passphrase?: string;
}

/** A part of a picture, in shares of its width and height. */
export class RemarkRegion {
  @IsNumber() @Min(0) @Max(1) x!: number;
  @IsNumber() @Min(0) @Max(1) y!: number;
  @IsNumber() @Min(0) @Max(1) width!: number;
  @IsNumber() @Min(0) @Max(1) height!: number;
}

export class RemarkDto {
  @IsIn(['whole', 'finding', 'page']) about!: 'whole' | 'finding' | 'page';
  @IsString() @Length(1, 4000) @Matches(SAYS_SOMETHING, { message: 'text must say something' }) text!: string;
  @IsOptional() @Matches(CHECK) check?: string;
  @IsOptional() @IsString() @MaxLength(2000) page?: string;
  @IsOptional() @IsIn(Object.keys(SCREENS)) screen?: Screen;
  @IsOptional() @ValidateNested() @Type(() => RemarkRegion) region?: RemarkRegion;
}

export class YesDto {
  /** The edition that was on the screen. */
  @IsInt() @Min(1) editionId!: number;
  @IsOptional() @IsString() @MaxLength(2000) note?: string;
}

export class ReasonDto {
  @IsString() @Length(3, 2000) reason!: string;
}

export class AnswerDto {
  @IsString() @Length(1, 4000) @Matches(SAYS_SOMETHING, { message: 'text must say something' }) text!: string;
}

export class RemarkFixDto {
  @IsIn(SEVERITIES) severity!: Severity;
}
