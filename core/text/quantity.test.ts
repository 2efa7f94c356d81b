import { describe, expect, it } from 'vitest';
import { inNumber, quantity, share } from './quantity';

describe('a count with its word', () => {
  it.each([
    ['none is many', quantity(0, 'group'), '0 groups'],
    ['one', quantity(1, 'group'), '1 group'],
    ['two', quantity(2, 'group'), '2 groups'],
    ['the plural of fix', quantity(3, 'fix'), '3 fixes'],
    ['the plural of address', quantity(2, 'address'), '2 addresses'],
    ['the plural of alias', quantity(2, 'alias'), '2 aliases'],
    ['several words', quantity(2, 'name server'), '2 name servers'],
    ['a plural of its own', quantity(2, 'site is', 'sites are'), '2 sites are'],
    ['a part of many', share(1, 12, 'page'), '1 of 12 pages'],
    ['a part of one', share(1, 1, 'page'), '1 of 1 page'],
    ['the word alone', inNumber(1, 'check'), 'check'],
  ])('%s', (_, said, wanted) => {
    expect(said).toBe(wanted);
  });
});
