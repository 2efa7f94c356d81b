import { describe, expect, it } from 'vitest';
import { matching } from './matching';

describe('finding by words', () => {
  it.each([
    ['nothing typed', '', 'Kites', true],
    ['one word', 'kit', 'Kites', true],
    ['any case', 'KITES', 'the kites', true],
    ['every word, in any order', 'held kites', 'Kites, held', true],
    ['one word is missing', 'kites clear', 'Kites, held', false],
  ])('%s', (_, typed, text, found) => {
    expect(matching(typed)(text)).toBe(found);
  });
});
