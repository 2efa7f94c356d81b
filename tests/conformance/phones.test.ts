/**
 * Phone numbers against google-libphonenumber, the reference library's own JavaScript build, and the forms of
 * E.123.
 */
import libphonenumber from 'google-libphonenumber';
import fc from '../property';
import { describe, expect, it } from 'vitest';
import { e164 } from '#core/checks/catalogue/identity/phone';

const { PhoneNumberUtil, PhoneNumberFormat } = libphonenumber;
const util = PhoneNumberUtil.getInstance();
const theirs = (text: string, region?: string): string | undefined => {
  try {
    return util.format(util.parse(text, region), PhoneNumberFormat.E164);
  } catch {
    return undefined;
  }
};

describe('numbers in E.164', () => {
  // one number of each numbering plan as the reference has it for an example
  const regions = util.getSupportedRegions();
  it(`the example numbers of ${regions.length} regions, as written for abroad and at home`, () => {
    expect(regions.length).toBeGreaterThan(200);
    for (const region of regions) {
      const number = util.getExampleNumber(region);
      const goal = util.format(number, PhoneNumberFormat.E164);
      expect(e164(util.format(number, PhoneNumberFormat.INTERNATIONAL)), region).toBe(goal);
      expect(e164(util.format(number, PhoneNumberFormat.E164)), region).toBe(goal);
      if (
        util.isValidNumberForRegion(number, region) &&
        util.getRegionCodeForCountryCode(number.getCountryCode()!) === region
      )
        expect(e164(util.format(number, PhoneNumberFormat.NATIONAL), goal), region).toBe(
          theirs(util.format(number, PhoneNumberFormat.NATIONAL), region),
        );
    }
  });
  // what the reference does not take for a number of the plan has no one right reading
  const valid = (text: string): string | undefined => {
    try {
      const n = util.parse(text);
      return util.isValidNumber(n) ? util.format(n, PhoneNumberFormat.E164) : undefined;
    } catch {
      return undefined;
    }
  };
  const sign = fc.constantFrom('0', '1', '2', '4', '5', '6', '7', '9', ' ', '-', '(', ')', '.', '/', '+');
  const anyhow = fc.array(sign, { minLength: 4, maxLength: 18 }).map((s) => `+44${s.join('')}`);
  const likely = fc
    .tuple(
      fc.constantFrom('', '0', '(0)', ' (0) '),
      fc.constantFrom('7', '20', '121', '1632', '800'),
      fc.array(fc.tuple(fc.constantFrom(...'0123456789'), fc.constantFrom('', '', '', ' ', '-', '.', '/')), {
        minLength: 3,
        maxLength: 9,
      }),
    )
    .map(([zero, begin, rest]) => `+44${zero}${begin}${rest.map((r) => r.join('')).join('')}`);
  it('generated texts are the number that the reference reads, where that is one of the plan', () => {
    let compared = 0;
    fc.assert(
      fc.property(fc.oneof(anyhow, likely), (text) => {
        const other = valid(text),
          mine = e164(text);
        if (other !== undefined && mine !== undefined) {
          compared++;
          expect(mine, text).toBe(other);
        }
      }),
      { numRuns: 6000 },
    );
    expect(compared).toBeGreaterThan(100);
  });
});
