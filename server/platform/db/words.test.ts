import { describe, expect, it } from 'vitest';
import { askedWords, indexedWords } from './words';

/** As the index answers: every asked beginning begins a kept word. */
function finds(kept: string[], typed: string): boolean {
  const words = indexedWords(kept).split(' ');
  const asked = askedWords(typed)?.split(' ') ?? [];
  return asked.every((a) => words.some((w) => w.startsWith(a.slice(1, -1))));
}

describe('finding rows by words', () => {
  it.each([
    ['a beginning', ['Tarn Planetarium'], 'plan', true],
    ['any case', ['Tarn Planetarium'], 'TARN', true],
    ['every word, in any order', ['Tarn Planetarium', 'noindex on 11 of 11 pages'], 'noindex tarn', true],
    ['a word that is not there', ['Tarn Planetarium'], 'tarn ferry', false],
    ['not the middle of a word', ['Tarn Planetarium'], 'arn', false],
    ['parts of an address', ['https://tarn-planetarium.example/a'], 'tarn-planetarium.example', true],
    ['a check by its id', ['indexing.let-in'], 'indexing.let-in', true],
    ['one letter', ['A choir'], 'a', true],
    ['what other indexes leave out', ['www.choir.example'], 'www', true],
    ['letters with marks, by those without', ['Förde Fähren'], 'fahren', true],
    ['a script without spaces', ['潮風プラネタリウム'], 'プラネ', true],
    ['a script that is written with marks', ['नमस्ते'], 'नमस', true],
  ])('%s', (_, kept, typed, expected) => expect(finds(kept, typed)).toBe(expected));

  it('keeps letters only, whatever stands in a text', () =>
    expect(indexedWords(['+a* -b "c" (d) ~@<>', null, 'プ'])).toMatch(/^[a-z0-9 ]+$/));
  it('keeps each word once', () => expect(indexedWords(['tarn tarn', 'Tarn'])).toBe('wwtarn'));
  it.each(['', '  ', '+*"', undefined])('asks nothing of %o', (typed) =>
    expect(askedWords(typed)).toBeUndefined(),
  );
  it('asks at most ten words', () =>
    expect(askedWords([...'abcdefghijklmnop'].join(' '))!.split(' ')).toHaveLength(10));
});
