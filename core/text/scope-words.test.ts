import { describe, expect, it } from 'vitest';
import { placesText, placesTitle } from './scope-words';

describe('what a check looked at', () => {
  it.each([
    ['page', 11, 12, '11 of 12 pages', 'Pages'],
    ['host', 0, 1, '1 host', 'Host'],
    ['image', 2, 2, '2 of 2 pictures', 'Pictures'],
    ['site', 1, 1, '', 'Looked at'],
    ['page', 0, 0, '', 'Pages'],
  ])('%s, %d of %d', (scope, failing, all, text, title) => {
    expect([placesText(scope, failing, all), placesTitle(scope, all)]).toEqual([text, title]);
  });
});
