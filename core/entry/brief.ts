/** The brief as it is entered, checked field by field, the same in the browser and on the server. */
import { GONE } from '#core/recipes/redirects';
import {
  ArrayMaxSize,
  IsArray,
  IsDay,
  IsEmail,
  IsHexColor,
  IsHost,
  IsIn,
  IsInt,
  IsLanguageTag,
  IsObject,
  IsName,
  IsOptional,
  IsPhone,
  IsString,
  IsWebAddress,
  IsZone,
  Length,
  Matches,
  Max,
  MaxLength,
  Min,
  Type,
  Validate,
  ValidateNested,
  ValidatorConstraint,
  type ValidatorConstraintInterface,
} from './validation';
import { RecordDto, TokenDto } from './record';

const MAIL = { require_tld: false };
const EACH = { each: true };
const PATH_OR_URL = /^(?:\/|https?:\/\/)\S*$/;
const PATH_URL_OR_GONE = new RegExp(`^${GONE}$|${PATH_OR_URL.source}`, PATH_OR_URL.flags);
const PATH_MESSAGE = 'must be paths such as /about/, or whole addresses';

export class ColourDto {
  @IsString() @Length(1, 60) role!: string;
  @IsHexColor() @Matches(/^#/, { message: 'value must begin with #' }) value!: string;
}
export class FormerAddressDto {
  @IsString()
  @MaxLength(2000)
  @Matches(PATH_OR_URL, { message: 'from must be a path such as /old/, or a whole address' })
  from!: string;
  @IsString()
  @MaxLength(2000)
  @Matches(PATH_URL_OR_GONE, {
    message: 'to must be a path such as /new/, a whole address, or 410 for a page that is gone on purpose',
  })
  to!: string;
}
export class ScriptDto {
  @IsString() @Length(1, 300) match!: string;
  @IsIn(['head', 'body-end']) where!: 'head' | 'body-end';
  @IsOptional() @IsString() @MaxLength(300) pages?: string;
}
export class HoldingDto {
  @IsOptional() @IsString() @MaxLength(300) mark?: string;
  @IsOptional() @IsString() @MaxLength(300) bypass?: string;
}

@ValidatorConstraint({ name: 'hasReasons' })
class HasReasons implements ValidatorConstraintInterface {
  validate(value: unknown): boolean {
    return (
      typeof value === 'object' &&
      value !== null &&
      Object.keys(value).length <= 60 &&
      Object.entries(value).every(
        ([k, v]) =>
          /^[A-Za-z]{1,40}$/.test(k) && typeof v === 'string' && v.trim().length > 2 && v.length <= 500,
      )
    );
  }
  defaultMessage(): string {
    return 'notWanted must give a reason of at least three letters for each field';
  }
}

/** `null` empties a field; IsOptional lets it through. */
export class BriefDto {
  @IsOptional() @IsString() @IsName() @MaxLength(200) name?: string;
  @IsOptional() @IsString() @MaxLength(300) tagline?: string;
  @IsOptional() @IsString() @MaxLength(300) defaultTitle?: string;
  @IsOptional() @IsString() @MaxLength(1000) defaultDescription?: string;
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsLanguageTag(EACH) languages?: string[];
  @IsOptional() @IsZone() timeZone?: string;
  @IsOptional() @IsEmail(MAIL) contactEmail?: string;
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsEmail(MAIL, EACH) privateEmails?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsHost(EACH) allowedEmailDomains?: string[];
  @IsOptional() @IsPhone() phone?: string;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(30)
  @ValidateNested(EACH)
  @Type(() => ColourDto)
  colours?: ColourDto[];
  @IsOptional() @IsHost() preferredHost?: string;
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsHost(EACH) otherHosts?: string[];
  /** With or without www, where it is deliberately not used. */
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsHost(EACH) unusedHosts?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsHost(EACH) stagingHosts?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(100) @IsHost(EACH) knownSubdomains?: string[];
  @IsOptional() @IsString() @MaxLength(300) homeMark?: string;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(200)
  @MaxLength(2000, EACH)
  @Matches(PATH_OR_URL, { ...EACH, message: `requiredPages ${PATH_MESSAGE}` })
  requiredPages?: string[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(200)
  @MaxLength(2000, EACH)
  @Matches(PATH_OR_URL, { ...EACH, message: `hiddenPaths ${PATH_MESSAGE}` })
  hiddenPaths?: string[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(2000)
  @ValidateNested(EACH)
  @Type(() => FormerAddressDto)
  formerAddresses?: FormerAddressDto[];
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsString(EACH) @Length(1, 200, EACH) keyPhrases?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsWebAddress(EACH) profileLinks?: string[];
  @IsOptional() @IsIn(['records', 'forwarding']) reachedBy?: 'records' | 'forwarding';
  @IsOptional() @IsWebAddress() forwardTo?: string;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(200)
  @ValidateNested(EACH)
  @Type(() => RecordDto)
  records?: RecordDto[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(200)
  @ValidateNested(EACH)
  @Type(() => RecordDto)
  currentRecords?: RecordDto[];
  @IsOptional() @IsArray() @ArrayMaxSize(20) @IsHost(EACH) nameServers?: string[];
  @IsOptional() @IsString() @MaxLength(200) registrar?: string;
  @IsOptional() @IsString() @MaxLength(500) registrationPlan?: string;
  @IsOptional() @IsIn(['yes', 'none']) mail?: 'yes' | 'none';
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20)
  @Matches(/^[A-Za-z0-9_]([A-Za-z0-9_.-]{0,120}[A-Za-z0-9_])?$/, {
    ...EACH,
    message: 'dkimSelectors must be selectors such as tide, without _domainkey',
  })
  dkimSelectors?: string[];
  @IsOptional() @IsArray() @ArrayMaxSize(50) @ValidateNested(EACH) @Type(() => TokenDto) tokens?: TokenDto[];
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsString(EACH) @Length(1, 100, EACH) analyticsIds?: string[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(100)
  @ValidateNested(EACH)
  @Type(() => ScriptDto)
  scripts?: ScriptDto[];
  @IsOptional() @IsArray() @ArrayMaxSize(200) @IsHost(EACH) allowedScriptHosts?: string[];
  @IsOptional() @IsString() @MaxLength(300) consentScript?: string;
  @IsOptional() @IsString() @MaxLength(200) consentClick?: string;
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @Matches(/^[!#$%&'*+\-.^_`|~0-9A-Za-z]{1,100}$/, {
    ...EACH,
    message: 'necessaryCookies must be names of cookies (RFC 6265 4.1.1), * for any letters',
  })
  necessaryCookies?: string[];
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @Matches(/^[A-Za-z_-]{1,60}$/, {
    ...EACH,
    message: 'crawlers must be product tokens of letters, - and _ (RFC 9309)',
  })
  crawlers?: string[];
  @IsOptional() @ValidateNested() @Type(() => HoldingDto) holding?: HoldingDto;
  @IsOptional() @IsIn(['wanted', 'unwanted']) badge?: 'wanted' | 'unwanted';
  @IsOptional() @IsIn(['wanted', 'unwanted']) comments?: 'wanted' | 'unwanted';
  @IsOptional() @IsArray() @ArrayMaxSize(50) @IsString(EACH) @Length(1, 100, EACH) features?: string[];
  @IsOptional() @IsInt() @Min(1000) @Max(100_000_000) budgetBytes?: number;
  @IsOptional() @IsDay() launchDate?: string;
  /** Fields left blank on purpose, each with its reason. */
  @IsOptional() @IsObject() @Validate(HasReasons) notWanted?: Record<string, string>;
}
