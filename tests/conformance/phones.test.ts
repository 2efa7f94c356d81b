/** Phone numbers against google-libphonenumber, the reference library's own JavaScript build, and the forms of E.123. */
import libphonenumber from 'google-libphonenumber';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { e164 } from '#core/checks/identity/phone';

const { PhoneNumberUtil, PhoneNumberFormat } = libphonenumber;
const util = PhoneNumberUtil.getInstance();
const theirs = (text: string, region?: string): string | undefined => { try { return util.format(util.parse(text, region), PhoneNumberFormat.E164); } catch { return undefined; } };

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
      if (util.isValidNumberForRegion(number, region) && util.getRegionCodeForCountryCode(number.getCountryCode()!) === region) expect(e164(util.format(number, PhoneNumberFormat.NATIONAL), goal), region).toBe(theirs(util.format(number, PhoneNumberFormat.NATIONAL), region));
    }
  });
  const sign = fc.constantFrom('0', '1', '2', '4', '5', '6', '7', '9', ' ', '-', '(', ')', '.', '/', '+');
  it('generated texts that both read are the same number', () => {
    fc.assert(fc.property(fc.array(sign, { minLength: 4, maxLength: 18 }).map(s => `+44${s.join('')}`), (text) => { const mine = e164(text), other = theirs(text); if (mine !== undefined && other !== undefined) expect(mine, text).toBe(other); }), { numRuns: 3000 });
  });
});
