/** A host profile as it is entered. */
import {
  ArrayMaxSize,
  IsArray,
  IsHost,
  IsInt,
  IsName,
  IsOptional,
  IsRange,
  IsString,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  Type,
  ValidateNested,
} from './validation';
import { RecordDto } from './record';

const EACH = { each: true };

class IconsDto {
  @IsOptional() @IsArray() @ArrayMaxSize(20) @IsInt(EACH) @Min(1, EACH) @Max(4096, EACH) required?: number[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @IsInt(EACH)
  @Min(1, EACH)
  @Max(4096, EACH)
  recommended?: number[];
  @IsOptional() @IsInt() @Min(1) @Max(4096) touch?: number;
}
class MarksDto {
  @IsOptional() @IsArray() @ArrayMaxSize(100) @Length(1, 300, EACH) parking?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(100) @Length(1, 300, EACH) unknownName?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(100) @Length(1, 300, EACH) holding?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(100) @Length(1, 300, EACH) samplePage?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(100) @Length(1, 300, EACH) signIn?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(100) @Length(1, 300, EACH) postList?: string[];
}
class DefaultsDto {
  @IsOptional() @IsArray() @ArrayMaxSize(200) @Length(1, 300, EACH) titles?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(200) @Length(1, 500, EACH) taglines?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(500) @Length(1, 1000, EACH) texts?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(100) @Length(1, 200, EACH) authors?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(100) @Length(1, 200, EACH) formSenders?: string[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(100)
  @Matches(/^[0-9a-f]{64}$/, { ...EACH, message: 'iconHashes must be SHA-256 digests in lower-case hex' })
  iconHashes?: string[];
}
class LifetimeDto {
  @IsInt() @Min(1) @Max(36_500) firstDays!: number;
  @IsOptional() @IsInt() @Min(1) @Max(36_500) renewalDays?: number;
  @IsOptional() @IsInt() @Min(1) @Max(36_500) capDays?: number;
}
class PlanDto {
  @IsString() @IsName() @Length(1, 100) name!: string;
  @IsArray() @ArrayMaxSize(100) @Length(1, 100, EACH) features!: string[];
}

export class HostProfileDto {
  @IsString() @IsName() @Length(1, 200) name!: string;
  @IsOptional() @IsString() @MaxLength(4000) notes?: string;
  @IsOptional() @ValidateNested() @Type(() => IconsDto) icons?: IconsDto;
  @IsOptional() @IsInt() @Min(1) @Max(10_000) descriptionLimit?: number;
  @IsOptional() @IsInt() @Min(1000) @Max(100_000_000) sharePictureBytes?: number;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(100)
  @ValidateNested(EACH)
  @Type(() => RecordDto)
  records?: RecordDto[];
  @IsOptional() @IsArray() @ArrayMaxSize(200) @IsRange(EACH) addressRanges?: string[];
  @IsOptional() @IsString() @MaxLength(200) issuer?: string;
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsHost(EACH) sharedSuffixes?: string[];
  @IsOptional() @ValidateNested() @Type(() => MarksDto) marks?: MarksDto;
  @IsOptional() @ValidateNested() @Type(() => DefaultsDto) defaults?: DefaultsDto;
  @IsOptional() @IsArray() @ArrayMaxSize(50) @Length(1, 300, EACH) badge?: string[];
  @IsOptional()
  @IsString()
  @MaxLength(300)
  @Matches(/^[\w.{}*-]*$/, {
    message: 'stagingHostPattern must be a host name, * standing for the part that varies',
  })
  stagingHostPattern?: string;
  @IsOptional() @ValidateNested() @Type(() => LifetimeDto) stagingLifetime?: LifetimeDto;
  @IsOptional() @IsArray() @ArrayMaxSize(30) @ValidateNested(EACH) @Type(() => PlanDto) plans?: PlanDto[];
  @IsOptional() @IsString() @MaxLength(500) backups?: string;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @Matches(/^[a-z]+\.[a-z0-9-]+$/, { ...EACH, message: 'handChecks must be ids of checks' })
  handChecks?: string[];
}
