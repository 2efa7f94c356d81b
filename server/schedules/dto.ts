/** What the screens send about schedules. */
import { MOST_PAGES } from '#core/facts/page-limit';
import { PARTS, type Part } from '#core/facts/parts';
import { EVERY, type Every } from '#core/schedule/night';
import {
  IsArray,
  IsBoolean,
  IsDay,
  IsIn,
  IsInt,
  IsName,
  IsOptional,
  IsString,
  IsZone,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  ValidateIf,
} from '#server/platform/http/validation';
import { OF_KINDS, type OfKind } from './models';

const TIME = /^(?:[01]\d|2[0-3]):[0-5]\d$/;
const timeOf = (field: string) => ({ message: `${field} must be a time of day, such as 01:30` });

export class ScheduleDto {
  @IsString() @Length(1, 120) @IsName() name!: string;
  @IsIn(OF_KINDS) ofKind!: OfKind;
  @IsString() @MaxLength(40) ofTarget!: string;
  /** What was chosen; parts without any are no choice. */
  @IsOptional() @IsIn(['all', 'list', 'parts']) what?: 'all' | 'list' | 'parts';
  @IsArray() @IsIn(PARTS, { each: true }) parts!: Part[];
  @ValidateIf((o: ScheduleDto) => o.checklistId !== null) @IsInt() @Min(1) checklistId!: number | null;
  /** 0, or left out, for what each site says. */
  @IsOptional() @IsInt() @Min(0) @Max(MOST_PAGES) pageLimit?: number;
  @IsIn(EVERY) every!: Every;
  @IsInt() @Min(1) @Max(7) weekday!: number;
  @Matches(TIME, timeOf('from')) from!: string;
  @Matches(TIME, timeOf('to')) to!: string;
  /** Both or none: hours in which nothing is asked. */
  @ValidateIf((o: ScheduleDto) => Boolean(o.notFrom || o.notTo))
  @Matches(TIME, timeOf('the begin of the quiet hours'))
  notFrom?: string;
  @ValidateIf((o: ScheduleDto) => Boolean(o.notFrom || o.notTo))
  @Matches(TIME, timeOf('the end of the quiet hours'))
  notTo?: string;
  @IsZone() timeZone!: string;
  @IsOptional() @ValidateIf((o: ScheduleDto) => o.pausedUntil !== '') @IsDay() pausedUntil?: string;
  @IsBoolean() isOn!: boolean;
}
