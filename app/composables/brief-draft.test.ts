import { describe, expect, it } from 'vitest';
import type { Brief } from '#core/facts/brief';
import { briefOf, draftOf } from './brief-draft';

const brief: Brief = { name: 'Kites', tagline: 'Up', contactEmail: 'a@kites.example', privateEmails: ['b@home.example', 'c@home.example'], phone: '+441632960447', languages: ['en-GB', 'cy'], preferredHost: 'kites.example', otherHosts: ['www.kites.example'], homeMark: '#kite', requiredPages: ['/about/'], records: [{ name: 'kites.example', type: 'A', value: '192.0.2.1', ttl: 300 }], tokens: [{ place: 'meta', kind: 'a', value: 'b' }], analyticsIds: ['TM-1'] };

describe('a brief in the form', () => {
  it('goes in and comes out the same', () => { expect(briefOf(draftOf(brief))).toEqual({ brief, faults: [] }); });
  it('taking on leaves blank fields out, saving empties them', () => {
    expect(briefOf(draftOf({}))).toEqual({ brief: {}, faults: [] });
    const emptied = briefOf({ ...draftOf(brief), phone: ' ', languages: '' }, true).brief;
    expect(emptied).toMatchObject({ phone: null, languages: [], name: 'Kites' });
  });
  it('tells bad lines with their field', () => {
    const { faults } = briefOf({ ...draftOf(brief), records: 'nonsense', tokens: 'x' });
    expect(faults).toHaveLength(2);
    expect(faults[0]).toMatch(/^Records: Line 1/);
    expect(faults[1]).toMatch(/^Tokens: Line 1/);
  });
});
