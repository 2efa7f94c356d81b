import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { countCharacters, isEastAsian, textWidth } from './width';

describe('text widths in Arial’s metrics', () => {
  // advances of Arial in 2048ths of an em, as its published metrics have them: space 569, a 1139, A 1366, i
  // 455, W 1933, digits 1139
  it.each([
    [' ', 569],
    ['a', 1139],
    ['A', 1366],
    ['i', 455],
    ['W', 1933],
    ['7', 1139],
    ['é', 1139],
    ['ß', 1251],
    ['–', 1139],
    ['€', 1139],
    ['Ж', 1891],
  ])('“%s” is %i units wide', (c, units) => {
    expect(textWidth(c, 2048)).toBe(units);
  });
  it('kerned pairs are narrower than their letters', () => {
    expect(textWidth('AV', 2048)).toBeLessThan(textWidth('A', 2048) + textWidth('V', 2048));
  });
  it('grows with the size and with the text', () => {
    expect(textWidth('Marsh Choir', 20)).toBeCloseTo(2 * textWidth('Marsh Choir', 10), 6);
    expect(textWidth('', 20)).toBe(0);
  });
  it('combining marks take no room, composed or not', () => {
    expect(textWidth('e\u0301', 20)).toBe(textWidth('é', 20));
  });
  it('East Asian letters are an em each', () => {
    expect(textWidth('日本語', 20)).toBe(60);
    expect(isEastAsian('日本語 ok')).toBe(true);
    expect(isEastAsian('Marsh 語')).toBe(false);
  });
  it('a family of four is one picture', () => {
    expect(textWidth('👨‍👩‍👧‍👦', 20)).toBe(textWidth('🎵', 20));
  });
  it('right-to-left letters are as wide as they are', () => {
    expect(textWidth('שלום', 20)).toBeGreaterThan(30);
  });
  it('characters are counted as a string’s iterator yields them (ECMAScript 22.1.5)', () => {
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom('a', 'é', '🎵', '\ud83c', '\udfb5', '日') }), (t) => {
        expect(countCharacters(t)).toBe([...t].length);
      }),
    );
  });
  it('lines and tabs count as spaces', () => {
    expect(textWidth('a\n\tb', 20)).toBe(textWidth('a b', 20));
  });
});
