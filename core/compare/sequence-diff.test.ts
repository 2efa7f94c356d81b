/** Against the `diff` package, and by putting the difference back. */
import { diffArrays } from 'diff';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { diffSequence, sentencesOf, type Step } from './sequence-diff';

const side = (steps: readonly Step[], leaves: Step['kind']): string[] =>
  steps.flatMap((s) => (s.kind === leaves ? [] : [s.text]));
const letters = fc.array(fc.constantFrom('a', 'b', 'c', 'd'), { maxLength: 60 });

describe('the difference of two sequences', () => {
  it('taken from one side gives the other', () => {
    fc.assert(
      fc.property(letters, letters, (a, b) => {
        const steps = diffSequence(a, b);
        expect(side(steps, 'added')).toEqual(a);
        expect(side(steps, 'gone')).toEqual(b);
      }),
      { numRuns: 500 },
    );
  });
  it('is as short as that of the diff package', () => {
    fc.assert(
      fc.property(letters, letters, (a, b) => {
        const theirs = diffArrays(a, b).reduce((n, p) => n + (p.added || p.removed ? p.value.length : 0), 0);
        expect(diffSequence(a, b).filter((s) => s.kind !== 'same')).toHaveLength(theirs);
      }),
      { numRuns: 500 },
    );
  });
  it('of two long texts with nothing in common ends in time, with all of it replaced', () => {
    const [a, b] = ['x', 'y'].map((c) => Array.from({ length: 4000 }, (_, i) => `${c}${i}`));
    const steps = diffSequence(a!, b!);
    expect(side(steps, 'added')).toEqual(a);
    expect(side(steps, 'gone')).toEqual(b);
  });
});

describe('sentences', () => {
  it.each([
    ['One. Two! Three?', ['One.', 'Two!', 'Three?']],
    ['No end', ['No end']],
    ['“Come in.” She did.', ['“Come in.”', 'She did.']],
    ['今日は。はい。', ['今日は。', 'はい。']],
    ['', []],
    ['...', []],
  ])('of “%s”', (text, wanted) => {
    expect(sentencesOf(text)).toEqual(wanted);
  });
  it('lose no word', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('tide', 'quay', '.', '!', '。', '”', ' '), { maxLength: 40 }),
        (parts) => {
          const text = parts.join('');
          const words = (t: string): string => t.replace(/[^a-z]/g, '');
          expect(words(sentencesOf(text).join(''))).toBe(words(text));
        },
      ),
    );
  });
});
