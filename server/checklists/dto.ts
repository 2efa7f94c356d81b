/** What the screens send about checklists and host profiles. */
import { HostProfileDto } from '#core/entry/host-profile';
import type { AssignmentKind } from './models';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsObject,
  IsString,
  IsWebAddress,
  MaxLength,
  Min,
  Type,
  ValidateNested,
} from '../platform/http/validation';

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
export class SiteIdsDto {
  @IsArray() @ArrayMaxSize(10_000) @IsInt({ each: true }) @Min(1, { each: true }) siteIds!: number[];
}
export class LookAheadDto extends SiteIdsDto {
  /** Read by its own rules. */
  @IsObject() checklist!: object;
}
export class LearnDto {
  @IsWebAddress() url!: string;
  @ValidateNested() @Type(() => HostProfileDto) profile!: HostProfileDto;
}
