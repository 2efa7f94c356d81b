/** The built server over its routes, with a real MariaDB and the practice net. */
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Served, until, type Caller } from './served';

const served = new Served('.test/integration');
let mara: Caller, joss: Caller;
const caller = (cookie: string): Caller => served.caller(cookie);
const settled = () => served.settled();

beforeAll(async () => {
  await served.start();
  mara = await served.signIn();
  joss = await served.signIn('joss@marram-studio.example');
});
afterAll(async () => {
  await served.stop();
});

interface Place {
  id: number;
  name: string;
  openFixes: number;
  situation: string;
  audit: null | { score: number; gate: string; blockers: number };
}
interface Row {
  id: number;
  name: string;
  shown: number;
  stage: string;
  places: Place[];
}
interface Found {
  check: string;
  outcome: string;
  accepted?: boolean;
  found?: string;
  reason?: string;
  severity: string;
  fix: null | { id: number; state: string; returns: number };
  acceptance: null | { id: number; seconded: string | null };
  recipe?: { steps: string };
}
const rosterOf = async (name: string): Promise<Row> =>
  (await mara<Row[]>('GET', '/api/roster')).body.find((r) => r.name === name)!;
const placeOf = async (site: string, name: string): Promise<Place> =>
  (await rosterOf(site)).places.find((p) => p.name === name)!;
const findingOf = async (environment: number, check: string): Promise<Found> =>
  (await mara<{ findings: Found[] }>('GET', `/api/environments/${environment}/ledger`)).body.findings.find(
    (f) => f.check === check,
  )!;
async function auditAgain(environment: number): Promise<void> {
  expect(
    (await mara<{ started: unknown[] }>('POST', '/api/audits', { environmentIds: [environment] })).body
      .started,
  ).toHaveLength(1);
  await settled();
}
const turn = (site: string, environment: string, fault: string, on: boolean) =>
  mara('POST', '/api/practice-net', { site, environment, fault, on });

describe('without a session', () => {
  it.each([
    '/api/roster',
    '/api/me',
    '/api/fixes',
    '/api/sites/1',
    '/api/environments/1/ledger',
    '/api/audits/running',
    '/api/practice-net',
    '/api/people',
    '/api/host-profiles',
    '/api/catalogue',
    '/api/nothing-here',
  ])('GET %s answers 401', async (path) => {
    expect((await caller('')('GET', path)).status).toBe(401);
  });
  it.each([
    '/api/audits',
    '/api/sites',
    '/api/read-site',
    '/api/practice-net',
    '/api/sign-out',
    '/api/fixes/1/accept',
  ])('POST %s answers 401', async (path) => {
    expect((await caller('')('POST', path)).status).toBe(401);
  });
  it.each(['/', '/fixes', '/sites/1', '/sites/new', '/practice-net'])('%s leads to sign-in', async (path) => {
    const a = await fetch(served.stack.address + path, { redirect: 'manual' });
    expect(a.status).toBe(302);
    expect(a.headers.get('location')).toMatch(/^\/sign-in/);
  });
  it('a forged cookie is none', async () => {
    expect((await caller('armband-session=Fe26.2**forged')('GET', '/api/roster')).status).toBe(401);
  });
});

describe('what comes in', () => {
  it('from another site is refused', async () => {
    expect(
      (await mara('POST', '/api/audits', { environmentIds: [1] }, { origin: 'https://evil.example' })).status,
    ).toBe(403);
    expect(
      (await mara('POST', '/api/audits', { environmentIds: [1] }, { 'sec-fetch-site': 'cross-site' })).status,
    ).toBe(403);
    expect((await mara('POST', '/api/audits', {}, { 'content-type': 'text/plain' })).status).toBe(400);
  });
  it.each([
    ['/api/audits', {}],
    ['/api/audits', { environmentIds: ['1; DROP TABLE site'] }],
    ['/api/audits', { environmentIds: [1], more: 1 }],
    ['/api/sites', { name: '' }],
    ['/api/read-site', { url: 'javascript:alert(1)' }],
    ['/api/sites/1/stage', { stage: 'sold' }],
  ])('%s refuses %j with a sentence', async (path, body) => {
    const a = await mara<{ message: string }>(path.endsWith('stage') ? 'PUT' : 'POST', path, body);
    expect(a.status).toBe(400);
    expect(a.body.message.length).toBeGreaterThan(8);
  });
  it.each(['/api/sites/999999', '/api/sites/abc', '/api/environments/999999/ledger', '/api/fixes/999999'])(
    '%s is not there',
    async (path) => {
      expect((await mara('GET', path)).status).toBe(404);
    },
  );
  it('answers carry a strict policy and no open door for other origins', async () => {
    const a = await fetch(`${served.stack.address}/sign-in`);
    expect(a.headers.get('content-security-policy')).toMatch(
      /default-src 'self'.*|script-src 'self' 'nonce-/,
    );
    expect(a.headers.get('content-security-policy')).not.toContain('unsafe-eval');
    expect(a.headers.get('access-control-allow-origin')).toBeNull();
  });
});

describe('the demo', () => {
  it('has 24 sites, every place audited once, in the situations that follow from their stage', async () => {
    const rows = (await mara<Row[]>('GET', '/api/roster')).body;
    expect(rows).toHaveLength(24);
    for (const r of rows)
      for (const p of r.places)
        if (!p.audit)
          throw new Error(
            `${r.name} ${p.name} was not audited: ${JSON.stringify((await mara('GET', `/api/environments/${p.id}/audits`)).body)}`,
          );
    const situations = Object.fromEntries(
      rows.map((r) => [r.name, r.places.map((p) => p.situation).join(' ')]),
    );
    expect(situations).toMatchObject({
      'Tarn Planetarium': 'staging live',
      'Lifeboat Loft': 'staging holding',
      'Windrow Kite Works': 'staging staging former',
      'Firth Tram Society': 'staging staging staging former',
    });
  });
});

describe('the life of a fix', () => {
  it('opens, is said to be done, is verified only by the next audit, and comes back', async () => {
    const { id } = await placeOf('Tarn Planetarium', 'Live');
    const before = await findingOf(id, 'indexing.let-in');
    expect(before).toMatchObject({ outcome: 'failed', fix: { state: 'open' } });
    const fix = before.fix!.id;
    expect(
      (await mara<{ message: string }>('PATCH', `/api/fixes/${fix}`, { state: 'verified' })).status,
    ).toBe(409);
    expect(
      (
        await mara('PATCH', `/api/fixes/${fix}`, {
          state: 'in hand',
          ownerId: 2,
          dueDate: '2026-12-01',
          comment: 'looking',
        })
      ).status,
    ).toBe(200);
    await mara('PATCH', `/api/fixes/${fix}`, { state: 'said to be done' });
    await auditAgain(id);
    expect((await findingOf(id, 'indexing.let-in')).fix!.state).toBe('open');
    await mara('PATCH', `/api/fixes/${fix}`, { state: 'said to be done' });
    await turn('planetarium', 'live', 'noindex-left', false);
    await auditAgain(id);
    expect(await findingOf(id, 'indexing.let-in')).toMatchObject({
      outcome: 'passed',
      fix: { state: 'verified' },
    });
    await turn('planetarium', 'live', 'noindex-left', true);
    await auditAgain(id);
    expect((await findingOf(id, 'indexing.let-in')).fix).toMatchObject({ state: 'open', returns: 1 });
    const history = (
      await mara<{
        events: { kind: string; by: string; text: string | null }[];
        ownerId: number;
        dueDate: string;
      }>('GET', `/api/fixes/${fix}`)
    ).body;
    expect(history.events.map((e) => e.kind).reverse()).toEqual([
      'opened',
      'state',
      'owner',
      'due',
      'comment',
      'state',
      'still seen',
      'state',
      'verified',
      'came back',
    ]);
    expect(history).toMatchObject({ ownerId: 2, dueDate: '2026-12-01' });
  });
  it('a fault mended without a word is gone, and the list over all sites shows only what is open', async () => {
    const { id } = await placeOf('Reedling Puppet Theatre', 'Live');
    expect((await findingOf(id, 'sharing.favicon')).fix!.state).toBe('open');
    await turn('puppets', 'live', 'no-icon', false);
    await auditAgain(id);
    expect((await findingOf(id, 'sharing.favicon')).fix!.state).toBe('gone');
    const open = (await mara<{ state: string; site: string }[]>('GET', '/api/fixes')).body;
    expect(open.some((f) => f.state === 'gone')).toBe(false);
    expect(new Set(open.map((f) => f.site)).size).toBeGreaterThan(5);
    expect(
      (await mara<{ state: string }[]>('GET', '/api/fixes?closed=1')).body.some((f) => f.state === 'gone'),
    ).toBe(true);
  });
});

describe('acceptances and attestations', () => {
  it('a blocker counts as accepted only once a second person has agreed, and again when taken back', async () => {
    const { id } = await placeOf('Sallow Ferries', 'Live');
    const fix = (await findingOf(id, 'domain.preferred-host')).fix!.id;
    expect(
      (
        await mara('POST', `/api/fixes/${fix}/accept`, {
          reason: 'old hosting contract',
          until: '2020-01-01',
        })
      ).status,
    ).toBe(400);
    expect(
      (
        await mara<{ needsSecond: boolean }>('POST', `/api/fixes/${fix}/accept`, {
          reason: 'old hosting contract',
          until: '2027-03-01',
        })
      ).body.needsSecond,
    ).toBe(true);
    const waiting = await findingOf(id, 'domain.preferred-host');
    expect(waiting.accepted).toBeUndefined();
    expect((await mara('POST', `/api/acceptances/${waiting.acceptance!.id}/second`)).status).toBe(409);
    expect((await joss('POST', `/api/acceptances/${waiting.acceptance!.id}/second`)).status).toBe(200);
    expect(await findingOf(id, 'domain.preferred-host')).toMatchObject({
      accepted: true,
      fix: { state: 'accepted' },
    });
    expect((await mara('POST', `/api/fixes/${fix}/withdraw`)).status).toBe(200);
    expect((await findingOf(id, 'domain.preferred-host')).fix!.state).toBe('open');
  });
  it('attesting decides a check by hand at once', async () => {
    const { id } = await placeOf('Lifeboat Loft', 'Staging');
    expect((await findingOf(id, 'delivery.client-approval')).outcome).toBe('untested');
    expect(
      (await mara('POST', `/api/environments/${id}/attest`, { check: 'https.hsts', done: true })).status,
    ).toBe(400);
    await mara('POST', `/api/environments/${id}/attest`, {
      check: 'delivery.client-approval',
      done: true,
      note: 'letter of Monday',
    });
    expect(await findingOf(id, 'delivery.client-approval')).toMatchObject({
      outcome: 'passed',
      found: expect.stringContaining('Mara Quill') as string,
    });
    await mara('POST', `/api/environments/${id}/attest`, { check: 'delivery.client-approval', done: false });
    expect(await findingOf(id, 'delivery.client-approval')).toMatchObject({
      outcome: 'failed',
      fix: { state: 'open' },
    });
  });
});

describe('taking a site on', () => {
  const site = (name: string) => ({
    name,
    client: 'Seed Library',
    liveUrl: 'https://saltmarsh-seeds.example/',
    places: [{ name: 'Draft', url: 'https://shared.preview.fennel-hosting.example/rope-walk/' }],
    stage: 'launched',
    replaces: false,
    launchDate: '2026-12-01',
    hostProfile: 'Fennel Hosting',
    brief: { name: 'Saltmarsh Seed Library', preferredHost: 'Saltmarsh-Seeds.example' },
  });
  it('reads proposals from the running site, each with where it was seen', async () => {
    const { body } = await mara<{ proposals: { field: string; shown: string; from: string }[] }>(
      'POST',
      '/api/read-site',
      { url: 'https://saltmarsh-seeds.example/' },
    );
    const shown = Object.fromEntries(body.proposals.map((p) => [p.field, p.shown]));
    expect(shown).toMatchObject({
      name: 'Saltmarsh Seed Library',
      tagline: 'Borrow a seed, bring two back',
      languages: 'en-GB',
      contactEmail: 'hello@saltmarsh-seeds.example',
      phone: '+441632960512',
      preferredHost: 'saltmarsh-seeds.example',
      analyticsIds: 'TM-960512',
      tokens: 'sallow-site-verification sf-seeds-0512',
    });
    expect(shown.records).toContain('192.0.2.40');
    for (const p of body.proposals) expect(p.from.length).toBeGreaterThan(3);
    expect(
      await mara<{ message: string }>('POST', '/api/read-site', { url: 'https://no-such.example/' }),
    ).toMatchObject({ status: 502, body: { message: expect.stringContaining('does not exist') as string } });
  });
  it('keeps everything, is audited, and its brief is versioned; a second of that name is refused', async () => {
    const {
      body: { id },
    } = await mara<{ id: number }>('POST', '/api/sites', site('A second look'));
    expect((await mara('POST', '/api/sites', site('A second look'))).status).toBe(409);
    const live = await placeOf('A second look', 'Live'),
      draft = await placeOf('A second look', 'Draft');
    await auditAgain(live.id);
    expect((await placeOf('A second look', 'Live')).audit).not.toBeNull();
    const compared = () => findingOf(live.id, 'delivery.live-equals-staging');
    expect((await compared()).reason).toContain('no audit of staging');
    await auditAgain(draft.id);
    await until(compared, (f) => !f.reason?.includes('no audit of staging'));
    // both at once: whichever is kept last sees the other
    await mara('POST', '/api/sites', site('A third look'));
    const both = [await placeOf('A third look', 'Live'), await placeOf('A third look', 'Draft')];
    await Promise.all(both.map((p) => auditAgain(p.id)));
    await until(
      () => findingOf(both[0]!.id, 'delivery.live-equals-staging'),
      (f) => !f.reason?.includes('no audit of staging'),
    );
    expect((await findingOf(live.id, 'identity.phone')).outcome).toBe('untested');
    expect(
      (await mara<{ version: number }>('PUT', `/api/sites/${id}/brief`, { phone: '+441632960512' })).body
        .version,
    ).toBe(2);
    expect((await findingOf(live.id, 'identity.phone')).outcome).toBe('passed');
    expect((await mara('PUT', `/api/sites/${id}/brief`, { phone: null })).status).toBe(200);
    expect((await findingOf(live.id, 'identity.phone')).outcome).toBe('untested');
    expect(
      (await mara<{ message: string }>('PUT', `/api/sites/${id}/brief`, { preferredHost: 'https://x/' }))
        .status,
    ).toBe(400);
  });
  it('changing the stage says at once what is wanted now', async () => {
    const { id } = await rosterOf('A second look');
    const live = await placeOf('A second look', 'Live');
    await mara('PUT', `/api/sites/${id}/stage`, { stage: 'pre-launch' });
    expect((await findingOf(live.id, 'indexing.kept-out')).outcome).toBe('failed');
    await mara('PUT', `/api/sites/${id}/stage`, { stage: 'launched' });
    expect(await findingOf(live.id, 'indexing.kept-out')).toBeUndefined();
    await mara('PUT', `/api/sites/${id}/stage`, { stage: 'retired' });
    expect(
      (await mara<{ refused: { reason: string }[] }>('POST', '/api/audits', { environmentIds: [live.id] }))
        .body.refused[0]!.reason,
    ).toContain('retired');
  });
});

describe('places and the way into them', () => {
  const secret = 'a-long-password-of-the-tests';
  it('what is secret is kept sealed, used on that host alone, and shown nowhere', async () => {
    const { id: siteId } = await rosterOf('Saltmarsh Seed Library');
    await turn('seeds', 'staging', 'unlocked', false);
    const place = await placeOf('Saltmarsh Seed Library', 'Staging');
    const url = 'https://test.saltmarsh-seeds.example/';
    expect(
      await mara<{ message: string }>('PUT', `/api/environments/${place.id}`, {
        name: 'Staging',
        url,
        wayIn: { kind: 'credentials', name: 'marram' },
      }),
    ).toMatchObject({ status: 400, body: { message: 'Say the password.' } });
    await mara('PUT', `/api/environments/${place.id}`, {
      name: 'Staging',
      url,
      wayIn: { kind: 'credentials', name: 'marram', value: secret },
    });
    await auditAgain(place.id);
    expect((await findingOf(place.id, 'indexing.staging-closed')).outcome).toBe('passed');
    const everything = JSON.stringify([
      (await mara('GET', `/api/sites/${siteId}`)).body,
      (await mara('GET', `/api/environments/${place.id}/ledger`)).body,
      (await mara('GET', '/api/roster')).body,
    ]);
    expect(everything).toContain('marram');
    expect(everything).not.toContain(secret);
    // a blank secret keeps the one that is there, but not for another host
    expect(
      (
        await mara('PUT', `/api/environments/${place.id}`, {
          name: 'Staging',
          url,
          wayIn: { kind: 'credentials', name: 'marram' },
        })
      ).status,
    ).toBe(200);
    expect(
      (
        await mara<{ message: string }>('PUT', `/api/environments/${place.id}`, {
          name: 'Staging',
          url: 'https://elsewhere.example/',
          wayIn: { kind: 'credentials', name: 'marram' },
        })
      ).body.message,
    ).toContain('another host');
  });
  it('places are added before the live one, changed and taken away; the live one stays', async () => {
    const { id: siteId } = await rosterOf('Pedal Kitchen');
    const {
      body: { id },
    } = await mara<{ id: number }>('POST', `/api/sites/${siteId}/places`, {
      name: 'Draft',
      url: 'https://draft.pedal-kitchen.example/',
      setUpOn: '2026-11-01',
    });
    expect((await rosterOf('Pedal Kitchen')).places.map((p) => p.name)).toEqual(['Staging', 'Draft', 'Live']);
    expect(
      (
        await mara('PUT', `/api/environments/${id}`, {
          name: 'First draft',
          url: 'https://draft.pedal-kitchen.example/',
          setUpOn: '',
        })
      ).status,
    ).toBe(200);
    expect(
      (
        await mara<{ message: string }>('PUT', `/api/environments/${id}`, {
          name: 'x',
          url: 'https://draft.pedal-kitchen.example/',
          setUpOn: 'soon',
        })
      ).status,
    ).toBe(400);
    expect((await mara('DELETE', `/api/environments/${id}`)).status).toBe(200);
    expect(
      (await mara('DELETE', `/api/environments/${(await placeOf('Pedal Kitchen', 'Live')).id}`)).status,
    ).toBe(409);
    expect((await mara('DELETE', `/api/environments/${id}`)).status).toBe(404);
  });
});

describe('evidence as files', () => {
  it.each([
    ['json', 'application/json', '"version":2'],
    ['har', 'application/json', '"version":"1.2"'],
    ['zone', 'text/dns', 'IN NS ns1.registry.example.'],
  ])('as %s, to be saved and never shown', async (as, type, part) => {
    const { id } = await placeOf('Tarn Planetarium', 'Live');
    const audit = (await mara<{ auditId: number }[]>('GET', `/api/environments/${id}/audits`)).body[0]!
      .auditId;
    const answer = await mara<object | string>('GET', `/api/audits/${audit}/evidence?as=${as}`);
    expect(answer.headers.get('content-type')).toContain(type);
    expect(answer.headers.get('content-disposition')).toMatch(
      /^attachment; filename="tarn-planetarium-live-\d{4}-\d\d-\d\d\.\w+"$/,
    );
    expect(typeof answer.body === 'string' ? answer.body : JSON.stringify(answer.body)).toContain(part);
  });
  it('refuses other formats and audits that are not there', async () => {
    expect((await mara('GET', '/api/audits/1/evidence?as=exe')).status).toBe(400);
    expect((await mara('GET', '/api/audits/999999/evidence')).status).toBe(404);
    expect((await caller('')('GET', '/api/audits/1/evidence')).status).toBe(401);
  });
});

describe('audits as jobs', () => {
  it('a second one for the same place is refused politely, and a running one can be stopped', async () => {
    const { id } = await placeOf('Saltmarsh Seed Library', 'Live');
    await turn('seeds', 'live', 'slow', true);
    const first = (
      await mara<{ started: { auditId: number }[] }>('POST', '/api/audits', { environmentIds: [id] })
    ).body.started[0]!.auditId;
    const second = (
      await mara<{ started: unknown[]; refused: { reason: string }[] }>('POST', '/api/audits', {
        environmentIds: [id],
      })
    ).body;
    expect(second.started).toEqual([]);
    expect(second.refused[0]!.reason).toContain('running already');
    expect(
      (await mara<{ environmentId: number; phase: string }[]>('GET', '/api/audits/running')).body,
    ).toEqual([expect.objectContaining({ environmentId: id })]);
    expect((await mara('POST', `/api/audits/${first}/stop`)).status).toBe(200);
    await settled();
    await turn('seeds', 'live', 'slow', false);
    const history = (
      await mara<{ id: number; status: string; error: string }[]>('GET', `/api/environments/${id}/audits`)
    ).body;
    expect(history[0]).toMatchObject({ auditId: first, status: 'stopped' });
    expect((await mara('POST', `/api/audits/${first}/stop`)).status).toBe(409);
    await auditAgain(id);
  });
  it('a crash in the middle leaves none that runs for ever', async () => {
    const { id } = await placeOf('Saltmarsh Seed Library', 'Live');
    await turn('seeds', 'live', 'slow', true);
    await mara('POST', '/api/audits', { environmentIds: [id] });
    const gone = new Promise((r) => served.stack.app.once('exit', r));
    served.stack.app.kill('SIGKILL');
    await gone;
    await served.stop();
    await served.again();
    mara = await served.signIn();
    expect((await mara<unknown[]>('GET', '/api/audits/running')).body).toEqual([]);
    expect(
      (await mara<{ status: string; error: string }[]>('GET', `/api/environments/${id}/audits`)).body[0],
    ).toMatchObject({ status: 'failed', error: expect.stringContaining('stopped in the middle') as string });
    expect((await rosterOf('Saltmarsh Seed Library')).places.find((p) => p.id === id)!.audit).not.toBeNull();
    await turn('seeds', 'live', 'slow', false);
    await auditAgain(id);
  });
});

describe('signing in', () => {
  it('is throttled after a few wrong passwords, with the same words for a stranger', async () => {
    const attempt = (email: string) =>
      caller('')<{ message: string }>('POST', '/api/sign-in', { email, password: 'wrong' });
    const [known, stranger] = [
      await attempt('ines@marram-studio.example'),
      await attempt('nobody@marram-studio.example'),
    ];
    expect(known).toMatchObject({ status: 401, body: { message: stranger.body.message } });
    let last = known;
    for (let i = 0; i < 8; i++) last = await attempt('ines@marram-studio.example');
    expect(last.status).toBe(429);
    expect(last.body.message).toMatch(/minutes/);
  });
});
