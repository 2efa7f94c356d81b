/** Forms: values as text and back, faults sorted to their fields. */
import { describe, expect, it } from 'vitest';
import { brief } from '#core/checks/example-evidence';
import { HOSTS } from '../../net/sites';
import { BRIEF_GROUPS, briefLabel } from './brief-fields';
import { BriefDto } from './brief';
import { checkDraft, withBlanks } from './check-draft';
import { dataFrom, draftFrom, readFieldText, valueAt, writeFieldText, type FieldKind } from './field-text';
import { PROFILE_GROUPS } from './host-profile-fields';

describe('a field’s text', () => {
  it.each<[FieldKind, string, unknown, string]>([
    ['text', '  Kites ', 'Kites', 'Kites'],
    ['number', '1 500 000', 1_500_000, '1500000'],
    ['numbers', '48 px, 240', [48, 240], '48, 240'],
    ['list', 'a, b\nc,,a', ['a', 'b', 'c'], 'a, b, c'],
    ['lines', '/a/\n\n /b, c/ ', ['/a/', '/b, c/'], '/a/\n/b, c/'],
    [
      'records',
      'a.example. 300 IN A 192.0.2.1 ; old',
      [{ name: 'a.example', type: 'A', value: '192.0.2.1', ttl: 300 }],
      'a.example 300 A 192.0.2.1',
    ],
    ['tokens', 'meta tide abc', [{ place: 'meta', kind: 'tide', value: 'abc' }], 'meta tide abc'],
    [
      'moves',
      '/old/ -> /new/\n/a/ /b/',
      [
        { from: '/old/', to: '/new/' },
        { from: '/a/', to: '/b/' },
      ],
      '/old/ -> /new/\n/a/ -> /b/',
    ],
    [
      'colours',
      'main: #233a5e\n#fff',
      [
        { role: 'main', value: '#233a5e' },
        { role: 'main', value: '#fff' },
      ],
      'main #233a5e\nmain #fff',
    ],
    [
      'scripts',
      'head count.js\nbody-end app.js the shop',
      [
        { match: 'count.js', where: 'head' },
        { match: 'app.js', where: 'body-end', pages: 'the shop' },
      ],
      'head count.js\nbody-end app.js the shop',
    ],
    [
      'plans',
      'Bulb: domain, forms',
      [{ name: 'Bulb', features: ['domain', 'forms'] }],
      'Bulb: domain, forms',
    ],
  ])('%s', (kind, typed, value, text) => {
    expect(readFieldText(kind, typed)).toEqual({ value, faults: [] });
    expect(writeFieldText(kind, value)).toBe(text);
    expect(readFieldText(kind, text).value).toEqual(value);
  });
  it.each<[FieldKind, string]>([
    ['number', 'many'],
    ['numbers', '48, wide'],
    ['moves', '/old/'],
    ['colours', 'red'],
    ['scripts', 'foot a.js'],
    ['plans', 'Bulb domain'],
    ['records', 'a.example X 1'],
    ['tokens', 'here a'],
  ])('%s tells what it cannot read of “%s”', (kind, text) => {
    expect(readFieldText(kind, text).faults).toHaveLength(1);
  });
  it('blank is no value', () => {
    for (const kind of ['text', 'number', 'list', 'records'] as const)
      expect(readFieldText(kind, ' \n')).toEqual({ value: undefined, faults: [] });
  });
});

describe('a draft', () => {
  it('a whole brief goes in and comes out the same', () => {
    const all = {
      ...brief(),
      holding: { mark: 'soon', bypass: '?p=1' },
      budgetBytes: 2000,
      badge: 'unwanted' as const,
      formerAddresses: [{ from: '/a', to: '/b' }],
    };
    expect(dataFrom(BRIEF_GROUPS, draftFrom(BRIEF_GROUPS, all))).toEqual({ data: all, faults: [] });
  });
  it.each(HOSTS.map((h) => [h.name, h] as const))('the profile of %s too', (_, host) => {
    expect(dataFrom(PROFILE_GROUPS, draftFrom(PROFILE_GROUPS, host))).toEqual({
      data: { ...host, icons: Object.keys(host.icons).length ? host.icons : undefined },
      faults: [],
    });
  });
  it('every field of the brief has a place in the form, but those that stand elsewhere', () => {
    const here = new Set(BRIEF_GROUPS.flatMap((g) => g.fields).map((f) => f.field.split('.')[0]));
    const known = [
      'name',
      'tagline',
      'languages',
      'timeZone',
      'contactEmail',
      'privateEmails',
      'allowedEmailDomains',
      'phone',
      'colours',
      'preferredHost',
      'otherHosts',
      'stagingHosts',
      'knownSubdomains',
      'homeMark',
      'requiredPages',
      'hiddenPaths',
      'formerAddresses',
      'keyPhrases',
      'profileLinks',
      'reachedBy',
      'forwardTo',
      'records',
      'currentRecords',
      'nameServers',
      'registrar',
      'registrationPlan',
      'mail',
      'dkimSelectors',
      'tokens',
      'analyticsIds',
      'scripts',
      'allowedScriptHosts',
      'consentScript',
      'crawlers',
      'holding',
      'badge',
      'comments',
      'features',
      'budgetBytes',
    ];
    expect(known.filter((k) => !here.has(k))).toEqual([]);
    expect(briefLabel('contactEmail')).toBe('Public mail address');
    expect(briefLabel('holding')).toBe('Mark of the holding page');
    expect(briefLabel('other')).toBe('other');
  });
  it('dotted paths reach into objects, and stop where there is none', () => {
    expect(valueAt({ a: { b: 1 } }, 'a.b')).toBe(1);
    expect(valueAt({ a: 'x' }, 'a.b')).toBeUndefined();
  });
});

describe('checking a draft', () => {
  const draft = {
    ...draftFrom(BRIEF_GROUPS, {}),
    contactEmail: 'hello@',
    languages: 'en-GB, xx-QQ',
    records: 'a.example A 192.0.2.1\nnonsense here\na.example A 999.1.1.1',
  };
  it('sorts faults to their fields, lines counted from one', async () => {
    const got = await checkDraft(BRIEF_GROUPS, BriefDto, draft, { notWanted: { phone: 'x' } });
    expect(Object.keys(got.faults).sort()).toEqual(['contactEmail', 'languages', 'records']);
    expect(got.faults.records![0]).toMatch(/^Line 2: “HERE” is no record type/);
    expect(got.faults.records![1]).toBe('Line 2: must be an IPv4 address such as 192.0.2.10');
    expect(got.others).toEqual(['notWanted must give a reason of at least three letters for each field']);
  });
  it('a good one has none, and saving empties what is blank', async () => {
    const got = await checkDraft(BRIEF_GROUPS, BriefDto, draftFrom(BRIEF_GROUPS, { name: 'Kites' }));
    expect(got).toMatchObject({ faults: {}, others: [], data: { name: 'Kites' } });
    expect(withBlanks(BRIEF_GROUPS, got.data)).toMatchObject({
      name: 'Kites',
      phone: null,
      holding: null,
      records: null,
    });
  });
});
