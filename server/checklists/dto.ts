/** What the screens send about checklists and host profiles. */
import { HostProfileDto } from '#core/entry/host-profile';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  IsWebAddress,
  MaxLength,
  Min,
  Type,
  ValidateIf,
  ValidateNested,
} from '#server/platform/http/validation';
import type { AssignmentKind } from './models';

class AssignmentDto {
  @IsIn(['site', 'client', 'host', 'default']) kind!: AssignmentKind;
  @IsString() @MaxLength(200) target!: string;
}
export class AssignmentsDto {
  @IsArray()
  @ArrayMaxSize(5000)
  @ValidateNested({ each: true })
  @Type(() => AssignmentDto)
  assignments!: AssignmentDto[];
}
/** Sites one by one, all that a checklist is for, or every one. */
export class WhichSitesDto {
  @ValidateIf((o: WhichSitesDto) => o.ofChecklist === undefined && !o.every)
  @IsArray()
  @ArrayMaxSize(10_000)
  @IsInt({ each: true })
  @Min(1, { each: true })
  siteIds?: number[];
  @IsOptional() @IsInt() @Min(1) ofChecklist?: number;
  @IsOptional() @IsBoolean() every?: boolean;
}
export class PreviewDto extends WhichSitesDto {
  /** Read by its own rules. */
  @IsObject() checklist!: object;
}
export class LearnDto {
  @IsWebAddress() url!: string;
  @ValidateNested() @Type(() => HostProfileDto) profile!: HostProfileDto;
}
