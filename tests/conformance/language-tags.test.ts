/**
 * Language tags: the examples of RFC 5646 appendix A (from memory), and the syntax against a second reader
 * (npm bcp-47, which bcp-47-normalize brings) over generated tags.
 */
import { parse } from 'bcp-47';
import { bcp47Normalize } from 'bcp-47-normalize';
import fc from '../property';
import { describe, expect, it } from 'vitest';
import { validLanguageTag } from '#core/checks/kit/language-tag';

const VALID = [
  'de',
  'fr',
  'ja',
  'i-enochian',
  'zh-Hant',
  'zh-Hans',
  'sr-Cyrl',
  'sr-Latn',
  'zh-cmn-Hans-CN',
  'cmn-Hans-CN',
  'zh-yue-HK',
  'yue-HK',
  'zh-Hans-CN',
  'sr-Latn-RS',
  'sl-rozaj',
  'sl-rozaj-biske',
  'sl-nedis',
  'de-CH-1901',
  'sl-IT-nedis',
  'hy-Latn-IT-arevela',
  'de-DE',
  'en-US',
  'es-419',
  'de-CH-x-phonebk',
  'az-Arab-x-AZE-derbend',
  'x-whatever',
  'qaa-Qaaa-QM-x-southern',
  'de-Qaaa',
  'sr-Latn-QM',
  'sr-Qaaa-RS',
  'en-US-u-islamcal',
  'zh-CN-a-myext-x-private',
  'en-a-myext-b-another',
];
const INVALID = [
  'de-419-DE',
  'a-DE',
  'ar-a-aaa-b-bbb-a-ccc',
  'de-DE-1901-1901',
  'x',
  'x-',
  'en--GB',
  'en-GB-',
  '-en',
  'en-UK',
  'english',
  'xx',
  'en_GB',
  'qaa-Qabz',
];

describe('RFC 5646', () => {
  it.each(VALID)('%s is valid', (tag) => {
    expect(validLanguageTag(tag)).toBe(true);
  });
  it.each(INVALID)('“%s” is not', (tag) => {
    expect(validLanguageTag(tag)).toBe(false);
  });
  it('letter case says nothing (2.1.1)', () => {
    for (const tag of VALID) expect(validLanguageTag(tag.toUpperCase()), tag).toBe(true);
  });
});

const piece = fc.constantFrom(
  'en',
  'de',
  'cy',
  'zh',
  'yue',
  'Latn',
  'Hans',
  'GB',
  'CH',
  '419',
  '1901',
  'rozaj',
  'u',
  'a',
  'x',
  'co',
  'phonebk',
  'Qaaa',
  'qaa',
  'toolongsubtag',
  '',
  'ü',
  '9',
);
describe('a second reader', () => {
  it('what is valid here is well-formed there', () => {
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 5 }), (pieces) => {
        const tag = pieces.join('-');
        if (validLanguageTag(tag)) {
          const read = parse(tag);
          expect(
            Boolean(read.language ?? read.irregular ?? read.regular) || read.privateuse.length > 0,
            tag,
          ).toBe(true);
        }
      }),
      { numRuns: 3000, examples: VALID.map((v) => [v.split('-')]) },
    );
  });
  it('normal forms of valid tags are valid', () => {
    for (const tag of VALID) expect(validLanguageTag(bcp47Normalize(tag) || tag), tag).toBe(true);
  });
});
