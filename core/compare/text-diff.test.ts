import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { diffText } from './text-diff';

describe('the difference of two texts', () => {
  it('marks a wrong digit', () => {
    expect(diffText('+441632960214', '+441632960215')).toEqual([
      { text: '+44163296021', kind: 'same' },
      { text: '4', kind: 'expected' },
      { text: '5', kind: 'found' },
    ]);
  });
  it('leaves texts alone that have little in common', () => {
    expect(diffText('a title that contains “Kites”', 'Home')).toBeNull();
    expect(diffText('', 'x')).toBeNull();
  });
  it('puts both texts together again', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 40 }), fc.string({ maxLength: 40 }), (a, b) => {
        const parts = diffText(a, b);
        if (!parts) return;
        expect(
          parts
            .filter((p) => p.kind !== 'found')
            .map((p) => p.text)
            .join(''),
        ).toBe(a);
        expect(
          parts
            .filter((p) => p.kind !== 'expected')
            .map((p) => p.text)
            .join(''),
        ).toBe(b);
      }),
    );
  });
});
