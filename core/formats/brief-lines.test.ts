import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { readList, readRecordLines, readTokenLines, writeRecordLines, writeTokenLines } from './brief-lines';

describe('records by line', () => {
  it('reads names, ttl, class, comments and quotes', () => {
    expect(
      readRecordLines(
        'kites.example. 300 IN A 192.0.2.10 ; main\n\nwww.kites.example CNAME kites.example.\nkites.example TXT "v=spf1 ; -all"',
      ).values,
    ).toEqual([
      { name: 'kites.example', ttl: 300, type: 'A', value: '192.0.2.10' },
      { name: 'www.kites.example', type: 'CNAME', value: 'kites.example' },
      { name: 'kites.example', type: 'TXT', value: 'v=spf1 ; -all' },
    ]);
  });
  it('tells each bad line', () => {
    expect(readRecordLines('x\nkites.example B 1\nkites.example A').faults).toHaveLength(3);
  });
  it('a name that looks like a type is no trouble', () => {
    expect(readRecordLines('a A 192.0.2.1').values).toEqual([{ name: 'a', type: 'A', value: '192.0.2.1' }]);
  });
  it('writes what it reads', () => {
    const record = fc.record({
      name: fc.stringMatching(/^[b-z]{1,8}\.example$/),
      type: fc.constantFrom('A', 'MX', 'CNAME'),
      value: fc.stringMatching(/^[b-z0-9][b-z0-9.]{0,10}[b-z0-9]$/),
      ttl: fc.integer({ min: 0, max: 86400 }),
    });
    fc.assert(
      fc.property(fc.array(record, { maxLength: 5 }), (r) => {
        expect(readRecordLines(writeRecordLines(r))).toEqual({ values: r, faults: [] });
      }),
    );
    fc.assert(
      fc.property(fc.string(), (s) => {
        readRecordLines(s);
        readTokenLines(s);
      }),
    );
  });
});

it('tokens and lists', () => {
  expect(readTokenLines('meta a b\nTXT c d\nnowhere e f').values).toEqual([
    { place: 'meta', kind: 'a', value: 'b' },
    { place: 'txt', kind: 'c', value: 'd' },
  ]);
  expect(readTokenLines('nowhere e f').faults).toHaveLength(1);
  expect(writeTokenLines([{ place: 'meta', kind: 'a', value: 'b' }])).toBe('meta a b');
  expect(readList('a, b\n a ,')).toEqual(['a', 'b']);
});
