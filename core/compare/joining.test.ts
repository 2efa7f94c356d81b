import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { joinChanges } from './joining';

type Fields = Record<string, unknown>;

describe('joining what two people changed', () => {
  it.each<[string, Fields, Fields, Fields, Fields, string[], string[]]>([
    ['nobody changed', { a: 1 }, { a: 1 }, { a: 1 }, { a: 1 }, [], []],
    ['only I changed', { a: 1 }, { a: 2 }, { a: 1 }, { a: 2 }, [], []],
    ['only they changed', { a: 1 }, { a: 1 }, { a: 3 }, { a: 3 }, ['a'], []],
    ['each another field', { a: 1, b: 1 }, { a: 2, b: 1 }, { a: 1, b: 3 }, { a: 2, b: 3 }, ['b'], []],
    ['both the same way', { a: 1 }, { a: 2 }, { a: 2 }, { a: 2 }, [], []],
    ['both another way', { a: 1 }, { a: 2 }, { a: 3 }, { a: 2 }, [], ['a']],
    ['they added', {}, {}, { a: 3 }, { a: 3 }, ['a'], []],
    ['they took away', { a: 1 }, { a: 1 }, {}, {}, ['a'], []],
    ['I took away what they changed', { a: 1 }, {}, { a: 3 }, {}, [], ['a']],
    ['blank is as good as left out', { a: '' }, {}, { a: [] }, {}, [], []],
    [
      'parts of a part',
      { n: { a: 1, b: 1 } },
      { n: { a: 2, b: 1 } },
      { n: { a: 1, b: 3 } },
      { n: { a: 2, b: 3 } },
      ['n.b'],
      [],
    ],
    ['lists without keys as a whole', { l: [1] }, { l: [1, 2] }, { l: [1, 3] }, { l: [1, 2] }, [], ['l']],
    [
      'entries of a list by their keys, in my order, theirs added',
      {
        items: [
          { id: 'x', w: 1 },
          { id: 'y', w: 1 },
        ],
      },
      {
        items: [
          { id: 'y', w: 1 },
          { id: 'x', w: 2 },
        ],
      },
      {
        items: [
          { id: 'x', w: 1 },
          { id: 'y', w: 3 },
          { id: 'z', w: 1 },
        ],
      },
      {
        items: [
          { id: 'y', w: 3 },
          { id: 'x', w: 2 },
          { id: 'z', w: 1 },
        ],
      },
      ['items.y', 'items.z'],
      [],
    ],
    [
      'an entry that they took away and I left alone',
      {
        items: [
          { id: 'x', w: 1 },
          { id: 'y', w: 1 },
        ],
      },
      {
        items: [
          { id: 'x', w: 2 },
          { id: 'y', w: 1 },
        ],
      },
      { items: [{ id: 'x', w: 1 }] },
      { items: [{ id: 'x', w: 2 }] },
      ['items.y'],
      [],
    ],
  ])('%s', (_, ...[base, mine, theirs, joined, taken, clashes]) => {
    const { document, ...rest } = joinChanges(base, mine, theirs);
    expect([document, rest.taken, rest.clashes.map((c) => c.path)]).toEqual([joined, taken, clashes]);
  });

  it('takes theirs where somebody says so', () => {
    expect(joinChanges({ a: 1, b: 1 }, { a: 2, b: 2 }, { a: 3, b: 3 }, new Set(['a'])).document).toEqual({
      a: 3,
      b: 2,
    });
  });

  const fields = fc.dictionary(fc.constantFrom('a', 'b', 'c', 'd'), fc.integer({ min: 1, max: 3 }));
  it('loses nobody’s change, whatever was changed', () =>
    fc.assert(
      fc.property(fields, fields, fields, (base: Fields, mine: Fields, theirs: Fields) => {
        const { document, clashes } = joinChanges(base, mine, theirs);
        for (const f of ['a', 'b', 'c', 'd']) {
          const [b, m, t, j] = [base[f], mine[f], theirs[f], (document as Fields)[f]];
          if (m !== b) expect(j).toBe(m);
          else expect(j).toBe(t);
          expect(clashes.some((c) => c.path === f)).toBe(m !== b && t !== b && m !== t);
        }
      }),
    ));
});
