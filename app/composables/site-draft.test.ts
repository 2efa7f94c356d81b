import { describe, expect, it } from 'vitest';
import { emptySite, missingOf } from './site-draft';

describe('what a site cannot be without', () => {
  it.each([
    ['both', { name: 'Kites', client: 'Works' }, '', ''],
    ['no name', { name: ' ', client: 'Works' }, 'Name the site.', ''],
    ['no client', { name: 'Kites', client: '' }, '', 'Name the client.'],
  ])('%s', (_, given, name, client) => {
    expect(missingOf({ ...emptySite(), ...given })).toEqual({ name, client });
  });
});
