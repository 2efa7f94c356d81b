import { describe, expect, it } from 'vitest';
import { filterFrom } from './fix-filter';

describe('which fixes a list shows, from its address', () => {
  it.each<[string, Record<string, unknown>, object]>([
    ['nothing', {}, {}],
    ['words and a site', { words: 'noindex', site: '4' }, { words: 'noindex', site: '4' }],
    ['what is empty is left out', { words: '', owner: 'me' }, { owner: 'me' }],
    ['closed ones only by a 1', { closed: '1' }, { closed: '1' }],
    ['closed by another word is not understood', { closed: 'yes' }, {}],
    ['the same word twice is not understood', { words: ['a', 'b'] }, {}],
    ['what is no filter is left alone', { view: 'site', check: 'https.hsts' }, { check: 'https.hsts' }],
  ])('%s', (_, query, filter) => {
    expect(filterFrom(query)).toEqual(filter);
  });
});
