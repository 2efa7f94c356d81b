/** What is kept of sites and clients is changed, merged and deleted; single audits too. */
import { request } from 'undici';
import { describe, expect, it } from 'vitest';
import { useDesk } from './desk';

const { served, mara, joss, site, environmentOf, environment, roster, ledger, history, auditAgain } =
  useDesk('.test/edit-sites');

type Said = { message: string };
interface Client {
  id: number;
  name: string;
  sites: number;
}
const clients = async (): Promise<Client[]> =>
  (await mara<{ rows: Client[] }>('GET', '/api/clients')).body.rows;
const clientNamed = async (name: string): Promise<Client> => (await clients()).find((c) => c.name === name)!;
const newSite = (name: string, client: string, more: object = {}) => ({
  name,
  client,
  liveUrl: `https://${name.toLowerCase().replace(/\W+/g, '-')}.example/`,
  environments: [],
  stage: 'building',
  replaces: false,
  brief: {},
  ...more,
});
const add = async (...args: Parameters<typeof newSite>): Promise<number> =>
  (await mara<{ id: number }>('POST', '/api/sites', newSite(...args))).body.id;

describe('a site is changed', () => {
  it('name, client, launch date, owner, host profile and whether it replaces one', async () => {
    const id = await add('Reed Organ', 'Reed Trust');
    const [owner] = (await mara<{ id: number; name: string }[]>('GET', '/api/people')).body;
    const change = {
      name: 'Reed Organ Museum',
      client: 'Reed Society',
      launchDate: '2027-02-01',
      ownerId: owner!.id,
      hostProfile: 'Fennel Hosting',
      replaces: true,
    };
    expect((await mara('PATCH', `/api/sites/${id}`, change)).status).toBe(200);
    expect(await site('Reed Organ Museum')).toMatchObject({
      id,
      client: 'Reed Society',
      launchDate: '2027-02-01',
      hostProfile: 'Fennel Hosting',
      owner: owner!.name,
      replaces: true,
    });
    await mara('PATCH', `/api/sites/${id}`, { launchDate: '', ownerId: 0, hostProfile: '' });
    expect(await site('Reed Organ Museum')).toMatchObject({
      launchDate: null,
      hostProfile: null,
      owner: null,
      client: 'Reed Society',
    });
  });
  it.each([
    [
      'a name that its client has already',
      { name: 'Tarn Planetarium', client: 'Tarn Planetarium Trust' },
      409,
    ],
    ['a client that has a site of its name', { client: 'Tarn Planetarium Trust' }, 409],
    ['an owner who is not of the team', { ownerId: 999_999 }, 400],
    ['no name', { name: '' }, 400],
    ['a day that is none', { launchDate: 'soon' }, 400],
    ['what is no field of a site', { colour: 'red' }, 400],
  ])('%s is refused', async (_, change, status) => {
    const mine = (await site('Tarn Planetarium')).client;
    const id = await add('Tarn Planetarium', `Somebody ${status} ${JSON.stringify(change).length}`);
    const answer = await mara<Said>('PATCH', `/api/sites/${id}`, change);
    expect(answer.status).toBe(status);
    expect(answer.body.message.length).toBeGreaterThan(8);
    expect(mine).toBe('Tarn Planetarium Trust');
    await mara('DELETE', `/api/sites/${id}`);
  });
  it('another host profile judges the stored evidence at once', async () => {
    const { id } = await site('Windrow Kite Works');
    const { id: staging } = await environment('Windrow Kite Works', 'Staging');
    const before = (await history(staging)).length;
    await mara('PATCH', `/api/sites/${id}`, { hostProfile: '' });
    const [newest, ...rest] = await history(staging);
    expect(rest).toHaveLength(before);
    expect(newest!.cause).toBe('host profile');
    await mara('PATCH', `/api/sites/${id}`, { owner: undefined, name: 'Windrow Kite Works' });
    expect(await history(staging)).toHaveLength(before + 1);
  });
  it('after the address changes, what was found is marked as of the old one until the next audit', async () => {
    const { id, url } = await environmentOf('Pedal Kitchen', 'Live');
    const moved = `${url}workshop/`;
    await mara('PUT', `/api/environments/${id}`, { name: 'Live', url: moved });
    const note = `All of this was found at ${url}, the address before it was changed.`;
    expect((await ledger(id)).notes.join(' ')).toContain(note);
    expect((await environmentOf('Pedal Kitchen', 'Live')).audit).toMatchObject({ ofOldAddress: true });
    await mara('PUT', `/api/environments/${id}`, { name: 'Live', url });
    await auditAgain(id);
    expect((await ledger(id)).notes.join(' ')).not.toContain('address before it was changed');
  });
});

describe('an address that is not there', () => {
  it('is said to a browser in words, on a page without scripts, and to others as JSON', async () => {
    // `fetch` says that it is a script; a browser that opens an address does not
    const opened = await request(`${served.stack.address}/api/nowhere`, { headers: { accept: 'text/html' } });
    const html = await opened.body.text();
    expect([opened.statusCode, opened.headers['content-type']]).toEqual([401, 'text/html; charset=utf-8']);
    expect(html).toContain('Sign in first.');
    expect(html).not.toMatch(/<script/);
    const asked = await mara<{ message: string }>('GET', '/api/nowhere');
    expect([asked.status, asked.body.message]).toEqual([404, 'There is no such route.']);
  });
});

describe('a site with a page limit', () => {
  it('has so many pages read, and says so; without it, as many as usual', async () => {
    const { id } = await environmentOf('Firth Tram Society', 'Live');
    const { id: siteId } = await site('Firth Tram Society');
    const limit = (pageLimit: number) => mara('PATCH', `/api/sites/${siteId}`, { pageLimit });
    expect((await limit(2)).status).toBe(200);
    expect(await site('Firth Tram Society')).toMatchObject({ pageLimit: 2 });
    await auditAgain(id);
    expect((await ledger(id)).notes.join(' ')).toContain('The page limit was reached: 2 of');
    expect((await limit(6000)).status).toBe(400);
    await limit(0);
    await auditAgain(id);
    expect((await ledger(id)).notes.join(' ')).not.toContain('The page limit was reached');
  });
});

describe('a site without a live address', () => {
  it('is added with an environment before it, and given its live one later', async () => {
    const id = await add('Sea Glass', 'Sea Glass', {
      liveUrl: undefined,
      environments: [{ name: 'Draft', url: 'https://sea-glass.cairn-draft.example/' }],
    });
    expect((await site('Sea Glass')).environments.map((e) => e.kind)).toEqual(['before']);
    expect((await mara('GET', `/api/sites/${id}`)).status).toBe(200);
    const [draft] = (await site('Sea Glass')).environments;
    await auditAgain(draft!.id);
    expect((await ledger(draft!.id)).lines.length).toBeGreaterThan(50);
    expect((await mara<Said>('DELETE', `/api/environments/${draft!.id}`)).body.message).toContain(
      'keeps its last environment',
    );
    const live = { name: 'Live', kind: 'live', url: 'https://sea-glass.example/' };
    expect((await mara('POST', `/api/sites/${id}/environments`, live)).status).toBe(200);
    expect((await mara('POST', `/api/sites/${id}/environments`, live)).status).toBe(409);
    expect((await site('Sea Glass')).environments.map((e) => e.kind)).toEqual(['before', 'live']);
  });
  it('needs one address at least', async () => {
    const answer = await mara<Said>(
      'POST',
      '/api/sites',
      newSite('Nowhere', 'Nowhere', { liveUrl: undefined }),
    );
    expect(answer).toMatchObject({
      status: 400,
      body: { message: expect.stringMatching(/live address/) as string },
    });
  });
});

describe('what looks alike is said before saving', () => {
  const alike = async ({ client, urls, except }: { client?: string; urls: string[]; except?: number }) => {
    const query = new URLSearchParams([
      ...(client ? [['client', client]] : []),
      ...urls.map((url) => ['urls', url]),
      ...(except ? [['except', String(except)]] : []),
    ]);
    return (await mara<{ clients: string[]; sites: { name: string }[] }>('GET', `/api/sites/alike?${query}`))
      .body;
  };
  it.each([
    ['a client one letter away', { client: 'Sallow Ferriess', urls: [] }, ['Sallow Ferries'], []],
    ['the client itself', { client: 'Sallow Ferries', urls: [] }, [], []],
    [
      'the same host, with www and no slash',
      { urls: ['http://www.tarn-planetarium.example'] },
      [],
      ['Tarn Planetarium'],
    ],
    ['another path of it', { urls: ['https://tarn-planetarium.example/shop/'] }, [], []],
    ['no address at all', { urls: ['tarn'] }, [], []],
  ])('%s', async (_, body, names, sites) => {
    const said = await alike(body);
    expect(said.clients).toEqual(names);
    expect(said.sites.map((s) => s.name)).toEqual(sites);
  });
  it('a site that is being changed is not like itself', async () => {
    const { id } = await site('Tarn Planetarium');
    expect((await alike({ urls: ['https://tarn-planetarium.example/'], except: id })).sites).toEqual([]);
  });
});

describe('access in a table of sites', () => {
  it('is given by the name of a stored one, never with its secret', async () => {
    const { id } = await environment('Clay Lane Pottery', 'Staging');
    const access = { kind: 'credentials', name: 'table-user', value: 'table-secret-941' };
    const url = (await environmentOf('Clay Lane Pottery', 'Staging')).url;
    expect((await mara('PUT', `/api/environments/${id}`, { name: 'Staging', url, access })).status).toBe(200);
    const text =
      'name,live address,staging address,access\nReed Flute,,https://reed-flute.cairn-draft.example/,table-user\n';
    expect((await mara('POST', '/api/sites/import', { text })).status).toBe(200);
    const { id: made } = await site('Reed Flute');
    const detail = (
      await mara<{ environments: { access: string; accessName: string }[] }>('GET', `/api/sites/${made}`)
    ).body;
    expect(detail.environments).toMatchObject([{ access: 'credentials', accessName: 'table-user' }]);
    const table = await mara<string>('GET', '/api/sites/export');
    expect(JSON.stringify(table.body)).toContain('table-user');
    expect(JSON.stringify(table.body)).not.toContain(access.value);
  });
});

describe('clients', () => {
  it('are renamed; a name that is taken asks for merging', async () => {
    await add('Old Lamp', 'Lamp Brothers');
    const { id } = await clientNamed('Lamp Brothers');
    expect((await mara('PATCH', `/api/clients/${id}`, { name: ' Lamp Sisters ' })).status).toBe(200);
    expect((await site('Old Lamp')).client).toBe('Lamp Sisters');
    expect(
      (await mara<Said>('PATCH', `/api/clients/${id}`, { name: 'Sallow Ferries' })).body.message,
    ).toContain('Merge the two');
  });
  it('are merged with what hangs on them; twice the same site is told first', async () => {
    await add('New Lamp', 'Lamp Sister');
    await add('Old Lamp', 'Lamp Sister');
    const [from, into] = [await clientNamed('Lamp Sister'), await clientNamed('Lamp Sisters')];
    const merge = () => mara<Said>('POST', `/api/clients/${from.id}/merge`, { into: into.id });
    expect(await merge()).toMatchObject({
      status: 409,
      body: { message: expect.stringMatching(/Old Lamp/) as string },
    });
    const double = (await roster('words=old+lamp')).find(
      (r) => r.name === 'Old Lamp' && r.client === 'Lamp Sister',
    )!;
    await mara('PATCH', `/api/sites/${double.id}`, { name: 'Older Lamp' });
    // both at once: it is done once
    expect((await Promise.all([merge(), merge()])).map((a) => a.status).sort()).toEqual([200, 404]);
    expect(await clientNamed('Lamp Sister')).toBeUndefined();
    expect((await clientNamed('Lamp Sisters')).sites).toBe(3);
    expect((await mara('POST', `/api/clients/${into.id}/merge`, { into: into.id })).status).toBe(400);
  });
  it('are deleted with their sites, which are named beforehand', async () => {
    const { id } = await clientNamed('Lamp Sisters');
    expect((await mara('GET', `/api/clients/${id}/contents`)).body).toEqual({
      sites: 3,
      environments: 3,
      audits: 0,
      fixes: 0,
      attestations: 0,
      files: 0,
      reports: 0,
      yeses: 0,
      launches: 0,
    });
    expect((await mara('DELETE', `/api/clients/${id}`)).status).toBe(200);
    expect((await mara('DELETE', `/api/clients/${id}`)).status).toBe(404);
    expect(await site('New Lamp')).toBeUndefined();
  });
});

describe('deleting', () => {
  it('a site goes with all that belongs to it, which is named beforehand', async () => {
    const { id } = await site('Quay Chess Circle');
    const { id: live } = await environment('Quay Chess Circle');
    const before = await mara<Record<string, number>>('GET', `/api/sites/${id}/contents`);
    expect(before.body).toMatchObject({ sites: 1, environments: 2 });
    expect(before.body.audits).toBeGreaterThanOrEqual(2);
    expect(before.body.fixes).toBeGreaterThan(0);
    await joss('POST', '/api/audits', { environmentIds: [live] });
    expect(await mara<Said>('DELETE', `/api/sites/${id}`)).toMatchObject({
      status: 409,
      body: { message: expect.stringMatching(/running/) as string },
    });
    await auditEnds(live);
    expect((await mara('DELETE', `/api/sites/${id}`)).status).toBe(200);
    for (const path of [`/api/sites/${id}`, `/api/sites/${id}/contents`, `/api/environments/${live}/ledger`])
      expect((await mara('GET', path)).status).toBe(404);
    expect((await mara<{ total: number }>('GET', `/api/fixes?site=${id}&closed=1`)).body.total).toBe(0);
  });
  it('a single audit goes with its evidence; the newest, on which the ledger rests, stays', async () => {
    const { id } = await environment('Saltmarsh Seed Library');
    await auditAgain(id);
    const [newest, older] = (await history(id)).filter((v) => v.cause === 'audit');
    expect((await mara<Said>('DELETE', `/api/audits/${newest!.auditId}`)).status).toBe(409);
    expect((await mara('DELETE', `/api/audits/${older!.auditId}`)).status).toBe(200);
    expect((await mara('DELETE', `/api/audits/${older!.auditId}`)).status).toBe(404);
    expect((await mara('GET', `/api/audits/${older!.auditId}/evidence`)).status).toBe(404);
    expect((await history(id)).map((v) => v.auditId)).not.toContain(older!.auditId);
  });
});

/** Until no audit of this environment is running. */
async function auditEnds(id: number): Promise<void> {
  await expect
    .poll(
      async () =>
        (await mara<{ environmentId: number }[]>('GET', '/api/audits/running')).body.some(
          (a) => a.environmentId === id,
        ),
      { timeout: 60_000 },
    )
    .toBe(false);
}
