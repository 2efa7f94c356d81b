import { describe, expect, it } from 'vitest';
import { foldLetters, foldLoosely, foldSpace } from './fold';

describe('folding', () => {
  it('white space of every kind becomes one space, composed (NFC)', () => {
    expect(foldSpace('  a\t\n b\u00a0c\u200b d\ufeff')).toBe('a b c d');
    expect(foldSpace('e\u0301')).toBe('é');
    expect(foldSpace('plain words')).toBe('plain words');
    expect(foldSpace('')).toBe('');
  });
  it('case and accents go, letters stay', () => {
    expect(foldLoosely('Café MARÉE – Übergröße')).toBe('cafe maree – ubergroße');
    expect(foldLoosely('CAFE\u0301')).toBe('cafe');
    expect(foldLetters('Ωμέγα 東京')).toBe('ωμεγα 東京');
  });
});
