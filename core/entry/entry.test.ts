/** What people and files may enter: each rule with values on both sides. */
import { describe, expect, it } from 'vitest';
import { BriefDto } from './brief';
import { HostProfileDto } from './host-profile';
import { recordFault } from './record-value';
import { NewSiteDto } from './site';
import { readAs } from './validation';

const faults = async (brief: Record<string, unknown>) =>
  (await readAs(BriefDto, brief)).faults.map((f) => f.path);

describe('a brief, field by field', () => {
  it.each<[string, unknown[], unknown[]]>([
    [
      'languages',
      [['en-GB'], ['cy', 'zh-Hant-TW'], ['sl-rozaj-biske'], ['de-CH-1996']],
      [['en_GB'], ['xx-YY'], ['english'], ['']],
    ],
    [
      'timeZone',
      ['Europe/London', 'America/Argentina/Buenos_Aires', 'UTC'],
      ['London', 'Europe/Nowhere', '+01:00'],
    ],
    [
      'contactEmail',
      ['hello@kites.example', 'a.b+c@kites.example'],
      ['hello@', 'hello kites.example', '@kites.example', 7],
    ],
    [
      'phone',
      ['+44 1632 960101', '+441632960101', '0044 1632 960101', '+1 202 555 0143'],
      ['01632 960101', '+44 1', '+0 123', 'call us', '+44 1632 960101 ext 9 and then some more words'],
    ],
    [
      'preferredHost',
      ['kites.example', 'www.kites.example', 'bücher.example', '例え.example'],
      ['https://kites.example', 'kites.example/', 'kites example', '-a.example', 'a..example', ''],
    ],
    [
      'colours',
      [[{ role: 'main', value: '#233a5e' }], [{ role: 'x', value: '#abc' }]],
      [
        [{ role: 'main', value: 'red' }],
        [{ role: '', value: '#abc' }],
        [{ value: '#abc' }],
        [{ role: 'main', value: '233a5e' }],
      ],
    ],
    ['requiredPages', [['/about/'], ['https://kites.example/x']], [['about'], ['/two words']]],
    [
      'formerAddresses',
      [[{ from: '/old/', to: '/new/' }]],
      [[{ from: 'old', to: '/new/' }], [{ from: '/old/' }]],
    ],
    ['profileLinks', [['https://shoal.example/kites']], [['shoal.example/kites'], ['javascript:alert(1)']]],
    ['reachedBy', ['records', 'forwarding'], ['magic']],
    ['dkimSelectors', [['tide', 's1.marram']], [['tide._domainkey.'], ['a b']]],
    [
      'tokens',
      [[{ kind: 'a', value: 'b', place: 'txt' }]],
      [[{ kind: 'a', value: 'b', place: 'header' }], [{ kind: '', value: 'b', place: 'txt' }]],
    ],
    ['scripts', [[{ match: 'a.js', where: 'head' }]], [[{ match: 'a.js', where: 'foot' }]]],
    ['crawlers', [['Foobot', 'img-bot']], [['Foobot/1.0'], ['foo bot']]],
    ['budgetBytes', [1000, 100_000_000], [999, 100_000_001, 1.5, '2000']],
    ['launchDate', ['2028-02-29'], ['2027-02-29', '2027-13-01', '1.2.2027']],
    [
      'notWanted',
      [{ phone: 'nobody calls' }],
      [{ phone: 'no' }, { phone: 3 }, { 'bad key': 'because' }, 'none'],
    ],
  ])('%s', async (field, good, bad) => {
    for (const value of good) expect(await faults({ [field]: value }), JSON.stringify(value)).toEqual([]);
    for (const value of bad)
      expect(
        (await faults({ [field]: value })).every((p) => p === field || p.startsWith(`${field}.`)) &&
          (await faults({ [field]: value })).length,
        JSON.stringify(value),
      ).toBeTruthy();
  });
  it('null empties a field, a field that is not known is a fault, and so is what is no object', async () => {
    expect(await faults({ phone: null, languages: null })).toEqual([]);
    expect(await faults({ fone: 'x' })).toEqual(['fone']);
    for (const data of [null, [], 'text', 3])
      expect((await readAs(BriefDto, data)).faults).toEqual([
        { path: '', message: 'A JSON object is expected.' },
      ]);
  });
  it('a fault within a list names its entry, in a sentence that begins with where', async () => {
    const { faults: found } = await readAs(BriefDto, {
      records: [
        { name: 'a.example', type: 'A', value: '192.0.2.1' },
        { name: 'a.example', type: 'A', value: '192.0.2.256' },
      ],
    });
    expect(found).toEqual([
      { path: 'records.1.value', message: 'records.1.value must be an IPv4 address such as 192.0.2.10' },
    ]);
  });
});

describe('the data of a record fits its type', () => {
  it.each<[string, string[], string[]]>([
    ['A', ['192.0.2.10'], ['192.0.2', '192.0.2.256', '2001:db8::1', '0x7f.1.1.1']],
    ['AAAA', ['2001:db8::10', '::ffff:192.0.2.1'], ['192.0.2.1', '2001:db8:::1']],
    ['CNAME', ['edge.host.example.', '@'], ['two names', '']],
    ['MX', ['10 mail.kites.example', '0 .'], ['mail.kites.example', '70000 mail.kites.example', 'ten mail']],
    ['SRV', ['0 5 443 a.example'], ['5 443 a.example', '0 5 99999 a.example']],
    ['CAA', ['0 issue "ca.example"', '128 issuewild ";"'], ['issue "ca.example"', '256 issue "x"']],
    ['HTTPS', ['1 . alpn=h2', '0 edge.example'], ['. alpn=h2', '1']],
    ['SOA', ['a. b. 1 2 3 4 5'], ['a. b. 1 2 3 4']],
    ['TXT', ['anything at all'], []],
  ])('%s', (type, good, bad) => {
    for (const v of good) expect(recordFault(type, v), v).toBeUndefined();
    for (const v of bad) expect(recordFault(type, v), v).toMatch(/^must be/);
  });
  it('a template still to be filled in is no fault', () => {
    expect(recordFault('CNAME', '{domain}')).toBeUndefined();
    expect(recordFault('A', '{address}')).toBeUndefined();
  });
});

describe('a site and a host profile', () => {
  const site = {
    name: 'Kites',
    client: 'Kite Works',
    liveUrl: 'https://kites.example/',
    environments: [],
    stage: 'building',
    replaces: false,
    brief: {},
  };
  it('a site needs name, client and a web address; its brief is read along', async () => {
    expect((await readAs(NewSiteDto, site)).faults).toEqual([]);
    for (const [key, value] of [
      ['name', ''],
      ['client', undefined],
      ['liveUrl', 'ftp://kites.example/'],
      ['stage', 'sold'],
      ['replaces', 'yes'],
      ['launchDate', '2027-02-30'],
      ['brief', { phone: '1' }],
      ['environments', [{ name: 'Staging', url: 'nowhere' }]],
    ] as const)
      expect((await readAs(NewSiteDto, { ...site, [key]: value })).faults.length, key).toBeGreaterThan(0);
  });
  it('ranges of a profile are ranges', async () => {
    const faults = async (addressRanges: unknown) =>
      (await readAs(HostProfileDto, { name: 'Fennel', addressRanges })).faults.map((f) => f.path);
    expect(await faults(['192.0.2.0/24', '2001:db8::/32'])).toEqual([]);
    expect(await faults(['192.0.2.0'])).toEqual(['addressRanges']);
    expect(await faults(['192.0.2.0/24', 'all'])).toEqual(['addressRanges']);
  });
  it('a profile needs a name; numbers are numbers', async () => {
    expect(
      (
        await readAs(HostProfileDto, {
          name: 'Bulb',
          icons: { required: [48] },
          stagingLifetime: { firstDays: 45 },
          plans: [{ name: 'Sprig', features: ['domain'] }],
          records: [{ name: '{domain}', type: 'A', value: '192.0.2.1' }],
          handChecks: ['delivery.backup'],
        })
      ).faults,
    ).toEqual([]);
    for (const change of [
      { name: '' },
      { icons: { required: ['48'] } },
      { icons: { required: [0] } },
      { stagingLifetime: { renewalDays: 3 } },
      { plans: [{ features: [] }] },
      { records: [{ name: 'a', type: 'SPF', value: 'x' }] },
      { colour: 'red' },
    ])
      expect(
        (await readAs(HostProfileDto, { name: 'Bulb', ...change })).faults.length,
        JSON.stringify(change),
      ).toBeGreaterThan(0);
  });
});

describe('a name', () => {
  const site = (name: string) => ({
    name,
    client: 'Tarn Trust',
    environments: [],
    stage: 'building',
    replaces: false,
    brief: {},
  });
  it.each([['Tarn Planetarium'], ['Ünïcödé & “quotes” – 例え'], ['שלום'], ['Tarn\u00A0Planetarium']])(
    '%j is taken',
    async (name) => {
      expect((await readAs(NewSiteDto, site(name))).faults).toEqual([]);
    },
  );
  it.each([
    ['a line end', 'Tarn\nBEGIN:VEVENT'],
    ['a return', 'Tarn\rX'],
    ['a line separator', 'Tarn\u2028X'],
    ['a zero', 'Tarn\0'],
    ['a bell', 'Tarn\x07'],
    ['a C1 control', 'Tarn\x85X'],
    ['a turn of direction', 'Tarn \u202Emuiratenalp'],
    ['an isolate', 'Tarn \u2067x\u2069'],
    ['a mark of direction', 'Tarn\u200F'],
    ['nothing but space', '  '],
  ])('with %s is refused', async (_, name) => {
    expect((await readAs(NewSiteDto, site(name))).faults.map((f) => f.path)).toEqual(['name']);
  });
});
