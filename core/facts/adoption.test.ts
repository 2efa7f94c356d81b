/** Taking found values into the brief, and a host's records for a site. */
import { describe, expect, it } from 'vitest';
import { applyAdoption } from './adoption';
import { fitsHostPattern, hostRecords, withHostRecords } from './host-records';

describe('taking what was found', () => {
  it('sets a field, and takes back that none was wanted', () => {
    expect(
      applyAdoption(
        { notWanted: { phone: 'nobody calls', tagline: 'none' } },
        { field: 'phone', how: 'set', value: '+441632960101' },
      ),
    ).toEqual({ phone: '+441632960101', notWanted: { tagline: 'none' } });
  });
  it('adds to a list once', () => {
    expect(
      applyAdoption({ analyticsIds: ['TM-1'] }, { field: 'analyticsIds', how: 'add', value: 'TM-2' }),
    ).toEqual({ analyticsIds: ['TM-1', 'TM-2'] });
    expect(
      applyAdoption({ analyticsIds: ['TM-1'] }, { field: 'analyticsIds', how: 'add', value: 'TM-1' }),
    ).toEqual({ analyticsIds: ['TM-1'] });
    expect(applyAdoption({}, { field: 'languages', how: 'add', value: 'cy' })).toEqual({ languages: ['cy'] });
  });
  it('swaps one record for another and keeps what the found one does not say', () => {
    const records = [
      { name: 'a.example', type: 'A', value: '192.0.2.1', ttl: 300 },
      { name: 'b.example', type: 'A', value: '192.0.2.2' },
    ];
    expect(
      applyAdoption(
        { records },
        {
          field: 'records',
          how: 'swap',
          value: { name: 'a.example', type: 'A', value: '192.0.2.9' },
          instead: { name: 'a.example', type: 'A', value: '192.0.2.1' },
        },
      ),
    ).toEqual({ records: [{ ...records[0], value: '192.0.2.9' }, records[1]] });
    expect(
      applyAdoption(
        { records },
        {
          field: 'records',
          how: 'swap',
          value: { name: 'c.example', type: 'A', value: '192.0.2.3' },
          instead: { name: 'c.example', type: 'A' },
        },
      ).records,
    ).toHaveLength(3);
  });
});

describe('the host’s records for a site', () => {
  const profile = {
    name: 'Bulb',
    records: [
      { name: '{domain}', type: 'A', value: '192.0.2.10' },
      { name: '{www}', type: 'CNAME', value: '{domain}' },
      { name: '_bulb.{host}', type: 'TXT', value: 'site={host}', ttl: 60 },
    ],
  };
  it('has the site’s names filled in', () => {
    expect(hostRecords(profile, 'www.kites.co.uk')).toEqual([
      { name: 'kites.co.uk', type: 'A', value: '192.0.2.10' },
      { name: 'www.kites.co.uk', type: 'CNAME', value: 'kites.co.uk' },
      { name: '_bulb.www.kites.co.uk', type: 'TXT', value: 'site=www.kites.co.uk', ttl: 60 },
    ]);
    expect(hostRecords(undefined, 'a.example')).toEqual([]);
  });
  it('stands in only where the brief says nothing of its own', () => {
    expect(withHostRecords({}, profile, 'kites.example').records).toHaveLength(3);
    expect(
      withHostRecords({ preferredHost: 'www.tides.example' }, profile, 'kites.example').records![0]!.name,
    ).toBe('tides.example');
    for (const brief of [
      { records: [{ name: 'a', type: 'A', value: '192.0.2.1' }] },
      { notWanted: { records: 'the client does it' } },
      { reachedBy: 'forwarding' as const },
    ])
      expect(withHostRecords(brief, profile, 'kites.example')).toEqual(brief);
  });
  it.each<[string, string, boolean]>([
    ['*.draft.host.example', 'kites.draft.host.example', true],
    ['*.draft.host.example', 'a.b.draft.host.example', true],
    ['*.draft.host.example', 'draft.host.example', false],
    ['draft.*', 'draft.kites.example', true],
    ['draft.*', 'predraft.kites.example', false],
    ['*-test.host.example', 'kites-test.host.example', true],
    ['a.b', 'axb', false],
    ['*', 'KITES.example', true],
  ])('%s on %s: %s', (pattern, host, fits) => {
    expect(fitsHostPattern(pattern, host)).toBe(fits);
  });
});
