import { describe, expect, it } from 'vitest';
import { goesWith } from './contents';

describe('what goes with what is deleted', () => {
  it.each([
    ['nothing', { sites: 0, audits: 0 }, 'Nothing else goes with it.'],
    ['one of one', { audits: 1 }, 'With it go 1 audit.'],
    ['what clients said', { yeses: 1, reports: 2 }, 'With it go 2 published reports and 1 yes of a client.'],
    ['more of it', { yeses: 2 }, 'With it go 2 yeses of clients.'],
    [
      'several, without what there is none of',
      { sites: 0, environments: 2, audits: 14, fixes: 9, files: 0 },
      'With it go 2 environments, 14 audits, and 9 fixes.',
    ],
  ])('%s', (_, counts, words) => {
    expect(goesWith(counts)).toBe(words);
  });
});
