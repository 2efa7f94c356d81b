/** A checklist as it is entered or imported. */
import { TITLE_LENGTH } from '#core/facts/heading';
import { COMPARISONS, LOOKS, type Checklist, type Comparison, type Look } from '#core/facts/checklist';
import { SECTIONS, type Section, type Severity } from '#core/facts/finding';
import { SITUATIONS, type Situation } from '#core/facts/situation';
import { RECORD_TYPES } from '#core/facts/brief';
import { checklistFaults } from '#core/checks/engine/checklist-faults';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsName,
  IsOptional,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  readAs,
  Type,
  ValidateNested,
  type Fault,
} from './validation';

const SEVERITIES = ['blocker', 'major', 'minor'] as const;
const ID = /^[a-z]+\.[a-z0-9-]{1,60}$/;

class ItemDto {
  @Matches(ID) check!: string;
  @IsOptional() @IsBoolean() on?: boolean;
  @IsOptional() @IsIn(SEVERITIES) severity?: Severity;
  @IsOptional() @IsNumber({ maxDecimalPlaces: 3 }) @Min(0) @Max(1000) weight?: number;
  @IsOptional() @IsObject() parameters?: Record<string, number | string | boolean>;
  @IsOptional() @IsString() @MaxLength(200) title?: string;
  @IsOptional() @IsString() @MaxLength(1000) note?: string;
}
class OwnTestDto {
  @IsIn(LOOKS) look!: Look;
  @IsOptional() @IsString() @Length(1, 300) at?: string;
  @IsOptional()
  @IsString()
  @Matches(/^[A-Za-z][\w:.-]{0,60}$/, { message: 'attribute must be the name of an attribute' })
  attribute?: string;
  @IsOptional() @IsIn(RECORD_TYPES) type?: string;
  @IsIn(COMPARISONS) is!: Comparison;
  @IsOptional() @IsString() @MaxLength(1000) value?: string;
  @IsOptional() @IsIn(['home', 'pages']) on?: 'home' | 'pages';
}
class OwnCheckDto {
  @Matches(/^own\.[a-z0-9-]{1,60}$/, {
    message: 'id must begin with own. and go on in small letters, digits and dashes',
  })
  id!: string;
  @IsIn(SECTIONS) section!: Section;
  @IsString() @Length(1, 200) title!: string;
  @IsOptional() @IsString() @MaxLength(TITLE_LENGTH) fault?: string;
  @IsOptional() @IsString() @MaxLength(500) why?: string;
  @IsOptional() @IsString() @MaxLength(2000) steps?: string;
  @IsIn(SEVERITIES) severity!: Severity;
  @IsArray() @ArrayMinSize(1) @IsIn(SITUATIONS, { each: true }) situations!: Situation[];
  @IsOptional() @ValidateNested() @Type(() => OwnTestDto) test?: OwnTestDto;
  @IsOptional() @IsInt() @Min(1) @Max(3650) goodForDays?: number;
}

class ChecklistDto {
  @IsString() @IsName() @Length(1, 200) name!: string;
  @IsOptional() @IsInt() @Min(1) version?: number;
  @IsOptional() @IsString() @MaxLength(1000) description?: string;
  @IsArray() @ArrayMaxSize(1000) @ValidateNested({ each: true }) @Type(() => ItemDto) items!: ItemDto[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => OwnCheckDto)
  own?: OwnCheckDto[];
}

/** Reads a checklist from foreign JSON. */
export async function readChecklist(data: unknown): Promise<{ checklist: Checklist; faults: Fault[] }> {
  const { value, faults } = await readAs(ChecklistDto, data);
  if (faults.length) return { checklist: value as Checklist, faults };
  const checklist = { ...(JSON.parse(JSON.stringify(value)) as Checklist), version: value.version ?? 1 };
  return { checklist, faults: checklistFaults(checklist) };
}
