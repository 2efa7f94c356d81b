import { describe, expect, it } from 'vitest';
import { nearDuplicates } from './near-duplicates';

const WORDS =
  'tide firth ferry heron reed salt quay light rope kite seed choir oak letter storm winter evening harbour tram wheel comet moon owl timetable market bridge stone mill bread baker'.split(
    ' ',
  );
/** A text of words that depend on a seed. */
const text = (seed: number, n = 300): string => {
  let x = seed * 2654435761 + 1;
  return Array.from({ length: n }, () => {
    x = (Math.imul(x, 1103515245) + 12345) >>> 0;
    return WORDS[x % WORDS.length]!;
  }).join(' ');
};
const change = (t: string, every: number): string =>
  t
    .split(' ')
    .map((w, i) => (i % every === every - 1 ? `new${i}` : w))
    .join(' ');

describe('near duplicates', () => {
  it('equal texts are found, short ones too', () => {
    expect(nearDuplicates(['a b', 'c', 'a b'], 0.9)).toEqual([{ of: 2, like: 0, share: 1 }]);
  });
  it('a text with one word changed in a hundred is nearly the same; one with every third changed is not', () => {
    const one = text(1);
    expect(nearDuplicates([one, text(2), change(one, 100)], 0.9).map((d) => [d.of, d.like])).toEqual([
      [2, 0],
    ]);
    expect(nearDuplicates([one, change(one, 3)], 0.9)).toEqual([]);
  });
  it('letters beyond ASCII are told from signs, and large from small', () => {
    const one = text(3).replaceAll('quay', 'pâtisserie').replaceAll('oak', 'Ώρα');
    const typeset = one
      .toUpperCase()
      .split(' ')
      .map((w, i) => (i % 7 ? w : `«${w}»…`))
      .join(' — ');
    expect(nearDuplicates([one, typeset], 0.9)).toEqual([{ of: 1, like: 0, share: 1 }]);
    expect(nearDuplicates([text(4).replaceAll('o', 'ø'), text(4).replaceAll('o', 'ö')], 0.9)).toEqual([]);
  });
  it('scripts without blanks are compared letter by letter', () => {
    const letters = (seed: number): string => {
      let x = seed;
      return Array.from({ length: 400 }, () => {
        x = (Math.imul(x, 1103515245) + 12345) >>> 0;
        return String.fromCodePoint(0x4e00 + ((x >>> 8) % 400));
      }).join('');
    };
    const one = letters(1);
    expect(
      nearDuplicates([one, letters(2), `${one.slice(0, 200)}。${one.slice(201)}`], 0.9).map((d) => [
        d.of,
        d.like,
      ]),
    ).toEqual([[2, 0]]);
  });
  it('nothing is no duplicate of nothing', () => {
    expect(nearDuplicates(['', ''], 0.9)).toEqual([]);
  });
  it('five thousand pages in a few seconds at most', () => {
    const pages = Array.from({ length: 5000 }, (_, i) => text(i + 1, 200));
    pages.push(change(pages[4321]!, 150));
    const started = performance.now();
    expect(nearDuplicates(pages, 0.9)).toEqual([expect.objectContaining({ of: 5000, like: 4321 })]);
    expect(performance.now() - started).toBeLessThan(20_000);
  });
});
