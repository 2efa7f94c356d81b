/** What the screens send about people and passwords. */
import {
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsName,
  IsOptional,
  IsString,
  Length,
  Matches,
  MaxLength,
  Min,
  Type,
} from '#server/platform/http/validation';

export class SignInDto {
  @IsString() @Length(3, 254) email!: string;
  @IsString() @Length(1, 500) password!: string;
}

export class PersonDto {
  @IsEmail({ require_tld: false }) @Length(3, 254) email!: string;
  @IsString() @Length(1, 120) @IsName() name!: string;
}

export class PersonChangeDto {
  @IsOptional()
  @IsString()
  @Length(1, 120)
  @IsName()
  name?: string;
  @IsOptional() @IsBoolean() owner?: boolean;
}

export class PasswordDto {
  @IsString() @Length(1, 500) old!: string;
  @IsString() @Length(1, 500) wanted!: string;
}

export class LinkPasswordDto {
  @IsString() @Matches(/^[\w-]{20,60}$/, { message: 'token must be the end of a link' }) token!: string;
  @IsString() @Length(1, 500) wanted!: string;
}

/** A screen whose filters can be kept. */
/** Screens on which people keep how they look at them. */
const SCREENS = ['fixes', 'pages'] as const;

export class ScreenDto {
  @IsIn(SCREENS) screen!: (typeof SCREENS)[number];
}

export class ViewDto extends ScreenDto {
  @IsString() @Length(1, 80) @IsName() name!: string;
  /** What stands in the address behind the question mark. */
  @IsString() @MaxLength(1000) query!: string;
}

export class MessagesDto {
  /** The last message of the window before. */
  @IsOptional() @Type(() => Number) @IsInt() @Min(1) after?: number;
}
