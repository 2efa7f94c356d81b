/**
 * The one door to class-validator, for server and browser: reflect-metadata comes first, or its decorators
 * fail in a build.
 */
import 'reflect-metadata';
import { plainToInstance } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsInt,
  Min,
  validate,
  ValidateBy,
  type ValidationError,
  type ValidationOptions,
} from 'class-validator';
import { asciiHost, parseUrl } from '#core/extract/address';
import { isRange } from '#core/facts/address-ranges';
import { hasControls } from '#core/text/controls';
import { e164 } from '#core/checks/catalogue/identity/phone';
import { validLanguageTag } from '#core/checks/kit/language-tag';

export * from 'class-validator';
export { Type, Transform } from 'class-transformer';

/** One thing that is wrong: where, and a sentence that begins with where. */
export interface Fault {
  path: string;
  message: string;
}

function faultsIn(errors: ValidationError[], above: string): Fault[] {
  return errors.flatMap((e) => {
    const path = above ? `${above}.${e.property}` : e.property;
    const own = Object.values(e.constraints ?? {}).map((m) => ({
      path,
      message: m.startsWith(e.property) ? (above ? `${above}.` : '') + m : `${path}: ${m}`,
    }));
    return [...own, ...faultsIn(e.children ?? [], path)];
  });
}

/** Reads foreign data as a class of fields. Fields it does not know are faults too. */
export async function readAs<T extends object>(
  shape: new () => T,
  data: unknown,
): Promise<{ value: T; faults: Fault[] }> {
  if (typeof data !== 'object' || data === null || Array.isArray(data))
    return { value: new shape(), faults: [{ path: '', message: 'A JSON object is expected.' }] };
  const value = plainToInstance(shape, data, { enableImplicitConversion: false });
  return {
    value,
    faults: faultsIn(
      await validate(value, { whitelist: true, forbidNonWhitelisted: true, forbidUnknownValues: true }),
      '',
    ),
  };
}

function rule(
  name: string,
  good: (value: unknown) => boolean,
  message: string,
): (options?: ValidationOptions) => PropertyDecorator {
  return (options) =>
    ValidateBy(
      {
        name,
        validator: {
          validate: (value) => good(value),
          defaultMessage: (args) => `${args?.property ?? name} ${message}`,
        },
      },
      options,
    );
}

/**
 * An address of the web, whole and by the URL standard: what this takes every later reader takes too. Names and
 * passwords in it are refused; they would stand in evidence and logs.
 */
export const IsWebAddress = rule(
  'isWebAddress',
  (v) => {
    if (typeof v !== 'string' || v.length > 2000 || !/^https?:\/\//i.test(v)) return false;
    const url = parseUrl(v);
    return url !== undefined && url.username === '' && url.password === '' && url.hostname !== '';
  },
  'must be an address with http:// or https://',
);
/** A host name, also an international one, without scheme or path (RFC 1123, UTS 46). */
export const IsHost = rule(
  'isHost',
  (v) =>
    typeof v === 'string' &&
    /^[\p{L}\p{M}\p{N}_.-]{1,253}$/u.test(v) &&
    v
      .replace(/\.$/, '')
      .split('.')
      .every((l) => l.length > 0 && l.length < 64 && !l.startsWith('-') && !l.endsWith('-')) &&
    asciiHost(v) !== undefined,
  'must be a host name without scheme or path',
);
/** A range of addresses (RFC 4632 3.1; RFC 4291 2.3). */
export const IsRange = rule(
  'isRange',
  (v) => typeof v === 'string' && isRange(v),
  'must be ranges of addresses such as 192.0.2.0/24 or 2001:db8::/32',
);
/** A language tag that the subtag registry knows (BCP 47). */
export const IsLanguageTag = rule(
  'isLanguageTag',
  (v) => typeof v === 'string' && v.length < 60 && validLanguageTag(v),
  'must be language tags such as en-GB, with subtags that are registered',
);
/** A phone number that can be read as E.164 with its country code. */
export const IsPhone = rule(
  'isPhone',
  (v) => typeof v === 'string' && v.length < 40 && /^\s*(?:\+|00)/.test(v) && e164(v) !== undefined,
  'must be a phone number with its country code, such as +44 1632 960101',
);
/** A time zone of the IANA database, as this machine's copy has it. */
export const IsZone = rule(
  'isZone',
  (v) => {
    if (typeof v !== 'string' || !/^[A-Za-z][A-Za-z0-9_+\-/]{1,60}$/.test(v)) return false;
    try {
      new Intl.DateTimeFormat('en', { timeZone: v });
      return true;
    } catch {
      return false;
    }
  },
  'must be a time zone such as Europe/London',
);
/** A name: it says something, in one line. */
export const IsName = rule(
  'isName',
  (v) => typeof v === 'string' && /\S/.test(v) && !hasControls(v),
  'must say something, in one line without control characters',
);
/** A day of the calendar that exists. */
export const IsDay = rule(
  'isDay',
  (v) =>
    typeof v === 'string' &&
    /^\d{4}-\d\d-\d\d$/.test(v) &&
    new Date(`${v}T00:00:00Z`).getTime() > 0 &&
    new Date(`${v}T00:00:00Z`).toISOString().startsWith(v),
  'must be a date such as 2026-12-01',
);

/** A list of numbers of rows. @param most how many at the most */
export const IsIds = (most: number): PropertyDecorator => {
  const each = { each: true };
  const rules = [IsArray(), ArrayMinSize(1), ArrayMaxSize(most), IsInt(each), Min(1, each)];
  return (target, name) => {
    for (const decorate of rules) decorate(target, name);
  };
};
