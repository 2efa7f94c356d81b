/** What the picture workshop sends. */
import { SHARE_FORMATS, type ShareFormat } from '#core/pictures/kit';
import { MOST_PADDING, MOST_ZOOM, PICTURE_USES, type PictureUse } from '#core/pictures/settings';
import {
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsString,
  IsWebAddress,
  Matches,
  Max,
  MaxLength,
  Min,
  Transform,
  Type,
  ValidateNested,
} from '#server/platform/http/validation';

const HEX = /^#[0-9a-f]{6}$/i;
const HEX_OR_NONE = /^(?:#[0-9a-f]{6})?$/i;

class CropDto {
  @Type(() => Number) @IsNumber() @Min(0) @Max(1) x!: number;
  @Type(() => Number) @IsNumber() @Min(0) @Max(1) y!: number;
  @Type(() => Number) @IsNumber() @Min(1) @Max(MOST_ZOOM) zoom!: number;
  @IsIn(SHARE_FORMATS) format!: ShareFormat;
  @Matches(HEX) ground!: string;
}

class EncodingDto extends CropDto {
  @Type(() => Number) @IsInt() @Min(1) @Max(100) quality!: number;
}

class ShareDto extends EncodingDto {
  @IsString() @MaxLength(420) alt!: string;
}

class IconDto {
  @Type(() => Number) @IsNumber() @Min(0) @Max(MOST_PADDING) padding!: number;
  @Matches(HEX_OR_NONE) ground!: string;
  @Transform(({ value }) => value === true || value === 'true') @IsBoolean() trim!: boolean;
}

/** How heavy it would be. The version of the picture keeps a browser from showing what was made of another. */
export class ShareLookDto extends CropDto {
  @Type(() => Number) @IsInt() @Min(1) version!: number;
}

export class ShareFileDto extends EncodingDto {
  @Type(() => Number) @IsInt() @Min(1) version!: number;
}

/** With the environment whose icons it is compared with. */
export class IconsDto extends IconDto {
  @Type(() => Number) @IsInt() @Min(1) version!: number;
  @Type(() => Number) @IsInt() @Min(1) environment!: number;
}

export class PictureSettingsDto {
  @IsString() @MaxLength(120) folder!: string;
  @ValidateNested() @Type(() => ShareDto) share!: ShareDto;
  @ValidateNested() @Type(() => IconDto) icon!: IconDto;
}

export class UseDto {
  @IsIn(PICTURE_USES) use!: PictureUse;
}

/** Its version, so that a browser asks again for another one. */
export class PreviewDto extends UseDto {
  @Type(() => Number) @IsInt() @Min(1) version!: number;
}

export class FoundPictureDto extends UseDto {
  @IsWebAddress() url!: string;
}

export class ThumbDto {
  @IsWebAddress() url!: string;
  @Type(() => Number) @IsInt() @Min(16) @Max(1200) width!: number;
}

export class KitDto {
  @Type(() => Number) @IsInt() @Min(1) environment!: number;
}
