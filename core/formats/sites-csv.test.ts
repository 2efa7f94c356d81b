/** Sites in bulk: RFC 4180 in and out, every bad cell marked. */
import fc from '../../tests/property';
import { describe, expect, it } from 'vitest';
import { CSV_TITLES, readSitesCsv, writeSitesCsv, type SiteLine } from './sites-csv';

const HEAD = 'name,client,live address,stage,launch date,mail,phone,replaces';
const faultsOf = async (row: string, known = {}) => {
  const { rows } = await readSitesCsv(`${HEAD}\n${row}`, known);
  return rows[0]!.faults.map((f) => [f.column, f.message]);
};

describe('reading', () => {
  it('a good row is a site; blanks have their ordinary meaning', async () => {
    const { rows, faults } = await readSitesCsv(
      `${HEAD}\n"Kites, and winches",,kites.example,,2027-03-01,hello@kites.example,+44 1632 960101,yes`,
    );
    expect(faults).toEqual([]);
    expect(rows[0]).toMatchObject({
      line: 2,
      faults: [],
      site: {
        name: 'Kites, and winches',
        client: 'Kites, and winches',
        liveUrl: 'https://kites.example',
        stage: 'building',
        replaces: true,
        launchDate: '2027-03-01',
        brief: { name: 'Kites, and winches', contactEmail: 'hello@kites.example', phone: '+44 1632 960101' },
      },
    });
  });
  it.each<[string, number]>([
    [',Trust,kites.example,,,,,', 0],
    ['Kites,,not a host,,,,,', 2],
    ['Kites,,ftp://kites.example,,,,,', 2],
    ['Kites,,kites.example,sold,,,,', 3],
    ['Kites,,kites.example,,2027-02-30,,,', 4],
    ['Kites,,kites.example,,,hello@,,', 5],
    ['Kites,,kites.example,,,,01632,', 6],
    ['Kites,,kites.example,,,,,perhaps', 7],
  ])('%s has its fault in column %i', async (row, column) => {
    expect((await faultsOf(row)).map((f) => f[0])).toContain(column);
  });
  it('says what is wrong without the name of the field, which is the column', async () => {
    expect(await faultsOf('Kites,,kites.example,,,hello@,,')).toEqual([[5, 'must be an email']]);
  });
  it.each([
    ['a kept name', 'Kites,,https://draft.host.example/,marram', []],
    [
      'a name that two have',
      'Kites,,https://draft.host.example/,twice',
      ['more than one stored access has this name'],
    ],
    [
      'a name that none has',
      'Kites,,https://draft.host.example/,nobody',
      ['no stored access has this name: enter it with one environment first'],
    ],
    [
      'a name without a staging address',
      'Kites,kites.example,,marram',
      ['there is no staging address that it could be for'],
    ],
  ])('an access by its name: %s', async (_, row, messages) => {
    const accesses = new Map([
      ['marram', 'one'],
      ['twice', 'many'],
    ] as const);
    const { rows } = await readSitesCsv(`name,live address,staging address,access\n${row}`, { accesses });
    expect(rows[0]!.faults.map((f) => f.message)).toEqual(messages);
    expect(rows[0]!.access).toBe(row.split(',')[3]);
    expect(JSON.stringify(rows[0]!.site ?? {})).not.toContain('marram');
  });
  it.each([
    ['a staging address alone will do', 'Kites,,https://draft.host.example/', []],
    [
      'no address at all will not',
      'Kites,,',
      ['give the live address, or a staging address where there is none yet'],
    ],
  ])('%s', async (_, row, messages) => {
    const { rows } = await readSitesCsv(`name,live address,staging address\n${row}`);
    expect(rows[0]!.faults.map((f) => f.message)).toEqual(messages);
    expect(rows[0]!.site?.liveUrl).toBeUndefined();
  });
  it('knows what is there already, and what stands in the table twice', async () => {
    expect(await faultsOf('Kites,Works,kites.example,,,,,', { taken: new Set(['works\nkites']) })).toEqual([
      [0, 'this client has a site of that name already'],
    ]);
    const { rows } = await readSitesCsv(`${HEAD}\nA,,a.example,,,,,\nA,,b.example,,,,,`);
    expect(rows[1]!.faults).toEqual([{ column: 0, message: 'the same site stands in line 2' }]);
    const other = await readSitesCsv('name,url,host profile\nA,a.example,Nowhere', { profiles: ['Bulb'] });
    expect(other.rows[0]!.faults).toEqual([{ column: 2, message: 'there is no host profile “Nowhere”' }]);
  });
  it.each([
    ['name;url;tagline\nA;a.example;x, y', 'semicolons'],
    ['name\turl\ttagline\nA\ta.example\tx, y', 'tabs'],
    [
      '\ufeffSite Name,URL,Slogan,Colour\r\nA,a.example,"x, y",red\r\n\r\n',
      'a BOM, CRLF, other words, a column to pass over',
    ],
  ])('%j: %s', async (text) => {
    const { rows, columns } = await readSitesCsv(text);
    expect(rows[0]!.site).toMatchObject({
      name: 'A',
      liveUrl: 'https://a.example',
      brief: { tagline: 'x, y' },
    });
    expect(columns.slice(0, 3).every((c) => c.known)).toBe(true);
  });
  it('a table without what is needed says so', async () => {
    expect((await readSitesCsv('')).faults).toEqual(['There is no row beneath the headings.']);
    expect((await readSitesCsv('client\nx')).faults).toEqual([
      'There is no column “name”.',
      'There is no column “live address”.',
    ]);
    expect((await readSitesCsv('name,url\n"A,a.example')).faults[0]).toMatch(/quote/);
    expect((await readSitesCsv(`name,url\n${'A,a.example\n'.repeat(5001)}`)).faults).toEqual([
      'More than 5000 rows: split the file.',
    ]);
  }, 60_000);
  it('a name with line ends or turned directions is a bad cell', async () => {
    const { rows } = await readSitesCsv(
      'name,live address\n"Tarn\nX: y",tarn.example\nTarn \u202Ex,tarn2.example\n',
    );
    expect(rows.map((r) => [r.site, r.faults[0]?.column])).toEqual([
      [null, 0],
      [null, 0],
    ]);
  });
  it('never throws', async () => {
    await fc.assert(
      fc.asyncProperty(fc.string({ maxLength: 300 }), async (text) => {
        const r = await readSitesCsv(text);
        for (const row of r.rows) expect(row.site === null).toBe(row.faults.length > 0);
      }),
      { numRuns: 300 },
    );
  });
});

describe('writing', () => {
  const line: SiteLine = {
    name: 'Kites "R" Us',
    client: 'Works',
    liveUrl: 'https://kites.example/',
    staging: 'https://draft.host.example/kites/',
    access: '',
    stage: 'launched',
    launchDate: '2026-01-31',
    replaces: true,
    hostProfile: '',
    brief: {
      tagline: 'Up, up',
      languages: ['en-GB', 'cy'],
      phone: '+441632960101',
      otherHosts: ['www.kites.example'],
    },
  };
  it('what is written is read again', async () => {
    const text = writeSitesCsv([line]);
    expect(text.split('\r\n')[0]).toBe(CSV_TITLES.map((t) => `"${t}"`).join(','));
    expect((await readSitesCsv(text)).rows[0]).toMatchObject({
      faults: [],
      site: {
        name: line.name,
        client: 'Works',
        liveUrl: line.liveUrl,
        environments: [{ url: line.staging }],
        stage: 'launched',
        replaces: true,
        launchDate: line.launchDate,
        brief: {
          tagline: 'Up, up',
          languages: ['en-GB', 'cy'],
          phone: '+441632960101',
          otherHosts: ['www.kites.example'],
        },
      },
    });
  });
  it('a cell that a spreadsheet would run is defused, a phone number is not', () => {
    const text = writeSitesCsv([
      {
        ...line,
        name: '=HYPERLINK("http://evil.example")',
        client: '@sum',
        brief: { tagline: '-1+1', phone: '+44 1632 960101' },
      },
    ]);
    expect(text).toContain(`"'=HYPERLINK(""http://evil.example"")"`);
    expect(text).toContain(`,"'@sum",`);
    expect(text).toContain(`,"'-1+1",`);
    expect(text).toContain(',"+44 1632 960101",');
  });
  it('a formula behind a semicolon stays in its cell where semicolons separate', () => {
    expect(writeSitesCsv([{ ...line, name: 'Kites;=1+1' }])).toContain('"Kites;=1+1"');
  });
  it('200,000 columns are no list of sites', async () => {
    const text = `name${',x'.repeat(200_000)}\na`;
    expect((await readSitesCsv(text)).faults[0]).toMatch(/columns/);
  });
});
