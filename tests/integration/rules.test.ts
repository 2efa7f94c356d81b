/**
 * Checklists, host profiles, briefs with versions, work by hand, what ends by itself, sites in bulk: over the
 * routes, with a real MariaDB and the practice net.
 */
import mariadb from 'mariadb';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Checklist } from '#core/facts/checklist';
import { Served, until, type Caller } from './served';

const served = new Served('.test/rules', { ARMBAND_SWEEP: '0.3' });
let mara: Caller, joss: Caller;
beforeAll(async () => {
  await served.start();
  mara = await served.signIn();
  joss = await served.signIn('joss@marram-studio.example');
});
afterAll(async () => {
  await served.stop();
});

interface Finding {
  check: string;
  title: string;
  outcome: string;
  severity: string;
  weight: number;
  found?: string;
  reason?: string;
  note?: string;
  places: { place: string; outcome: string; take?: { field: string } }[];
  attestations: {
    by: string;
    done: boolean;
    doesNotApply: boolean;
    note: string | null;
    place: string | null;
    goodUntil: string | null;
    file: { id: number; name: string } | null;
  }[];
  fix: { id: number; state: string } | null;
  accepted?: boolean;
}
interface Ledger {
  audit: { result: { score: number; gate: string }; checklist: string };
  findings: Finding[];
  help: { check: string; holds: boolean }[];
}
interface Row {
  id: number;
  name: string;
  client: string;
  places: {
    id: number;
    name: string;
    kind: string;
    situation: string;
    audit: { score: number; gate: string } | null;
  }[];
}
const site = async (name: string) =>
  (await mara<Row[]>('GET', '/api/roster')).body.find((r) => r.name === name)!;
const place = async (name: string, kind = 'Live') => (await site(name)).places.find((p) => p.name === kind)!;
const ledger = async (id: number) => (await mara<Ledger>('GET', `/api/environments/${id}/ledger`)).body;
const finding = async (id: number, check: string) =>
  (await ledger(id)).findings.find((f) => f.check === check)!;
interface Verdict {
  auditId: number;
  cause: string;
  score: number;
  reasons: string[];
  judgedBy: { brief: number; checklist: string; profile: number; catalogue: string };
}
const history = async (id: number) => (await mara<Verdict[]>('GET', `/api/environments/${id}/audits`)).body;
interface Job {
  id: string;
  status: string;
  done: number;
  total: number;
  results: {
    site: string;
    place: string;
    before: { score: number; gate: string };
    after: { score: number; gate: string };
    changes: { check: string; from: string; to: string }[];
  }[];
}
const job = (id: string) =>
  until(
    async () => (await mara<Job>('GET', `/api/jobs/${id}`)).body,
    (j) => j.status !== 'running',
  );
async function sql(text: string, values: unknown[] = []): Promise<void> {
  const { env } = served.stack.database;
  const c = await mariadb.createConnection({
    host: '127.0.0.1',
    port: Number(env.ARMBAND_DB_PORT),
    user: env.ARMBAND_DB_USER,
    password: env.ARMBAND_DB_PASSWORD,
    database: env.ARMBAND_DB_NAME,
  });
  try {
    await c.query(text, values);
  } finally {
    await c.end();
  }
}

describe('the brief', () => {
  interface Version {
    version: number;
    savedBy: string;
    changes: { field: string; kind: string }[];
    data: Record<string, unknown>;
  }
  const versions = async (id: number) => (await mara<Version[]>('GET', `/api/sites/${id}/briefs`)).body;

  it('has versions that say who changed what, and an older one can be brought back', async () => {
    const { id } = await site('Curlew Point Bird Station');
    const [first] = await versions(id);
    expect(
      (
        await joss('PUT', `/api/sites/${id}/brief?from=${first!.version}`, {
          tagline: 'Thrown by hand',
          phone: null,
          notWanted: { phone: 'the workshop has none' },
        })
      ).body,
    ).toEqual({ version: first!.version + 1 });
    const [second] = await versions(id);
    expect(second).toMatchObject({
      savedBy: expect.stringMatching(/^Joss/) as string,
      data: { tagline: 'Thrown by hand', notWanted: { phone: 'the workshop has none' } },
    });
    expect(second!.changes.map((c) => `${c.field} ${c.kind}`).sort()).toEqual([
      expect.stringMatching(/^notWanted (added|changed)$/),
      'phone removed',
      'tagline changed',
    ]);
    expect(await finding((await place('Curlew Point Bird Station')).id, 'identity.phone')).toMatchObject({
      outcome: 'inapplicable',
      reason: 'not wanted: the workshop has none',
    });
    expect((await mara('POST', `/api/sites/${id}/bring-back`, { version: first!.version })).status).toBe(200);
    expect((await versions(id))[0]!.data).toMatchObject({
      tagline: first!.data.tagline,
      phone: first!.data.phone,
    });
    expect((await history((await place('Curlew Point Bird Station')).id))[0]).toMatchObject({
      cause: 'brief',
      reasons: [`brief ${second!.version} → ${second!.version + 1}`],
    });
  });
  it('two people who change it at once do not overwrite each other', async () => {
    const { id } = await site('Curlew Point Bird Station');
    const from = (await versions(id))[0]!.version;
    expect((await mara('PUT', `/api/sites/${id}/brief?from=${from}`, { tagline: 'One' })).status).toBe(200);
    expect(await joss('PUT', `/api/sites/${id}/brief?from=${from}`, { tagline: 'Two' })).toMatchObject({
      status: 409,
      body: { message: expect.stringMatching(/^Mara Quill saved version \d+/) as string },
    });
    await mara('POST', `/api/sites/${id}/bring-back`, { version: from });
  });
  it.each([
    [{ phone: '01632' }, 'phone'],
    [{ timeZone: 'Nowhere' }, 'timeZone'],
    [{ records: [{ name: 'a', type: 'A', value: 'x' }] }, 'records'],
    [{ notWanted: { phone: 'x' } }, 'notWanted'],
    [{ colour: 'red' }, 'colour'],
  ])('refuses %j and keeps what is there', async (change, word) => {
    const { id } = await site('Curlew Point Bird Station');
    const before = (await versions(id)).length;
    const answer = await mara<{ message: string }>('PUT', `/api/sites/${id}/brief`, change);
    expect(answer.status).toBe(400);
    expect(answer.body.message).toContain(word);
    expect(await versions(id)).toHaveLength(before);
  });
  it('takes what a finding saw, and the finding passes from then on', async () => {
    const { id } = await place('Sallow Ferries');
    const before = await finding(id, 'identity.phone');
    expect(before.outcome).toBe('failed');
    const at = before.places.find((p) => p.take)!;
    expect(
      (
        await mara<{ field: string }>('POST', '/api/take', {
          environmentId: id,
          check: 'identity.phone',
          place: at.place,
        })
      ).body.field,
    ).toBe('phone');
    expect((await finding(id, 'identity.phone')).outcome).toBe('passed');
    expect(
      (await mara('POST', '/api/take', { environmentId: id, check: 'identity.phone', place: at.place }))
        .status,
    ).toBe(409);
    expect(
      (await mara('POST', '/api/take', { environmentId: id, check: 'identity.nothing', place: 'x' })).status,
    ).toBe(404);
  });
  it('changing the stage says at once what is wanted now, without another audit', async () => {
    const { id, places } = await site('Windrow Kite Works');
    const live = places.find((p) => p.name === 'Live')!;
    expect(live.situation).toBe('former');
    const looked = (await history(live.id)).filter((v) => v.cause === 'audit').length;
    expect((await mara('PUT', `/api/sites/${id}/stage`, { stage: 'launched' })).status).toBe(200);
    expect((await place('Windrow Kite Works')).situation).toBe('live');
    expect((await ledger(live.id)).findings.some((f) => f.check === 'indexing.let-in')).toBe(true);
    const [newest] = await history(live.id);
    expect(newest).toMatchObject({
      cause: 'stage',
      reasons: expect.arrayContaining(['another situation']) as string[],
    });
    expect((await history(live.id)).filter((v) => v.cause === 'audit')).toHaveLength(looked);
    await mara('PUT', `/api/sites/${id}/stage`, { stage: 'building' });
  });
});

describe('checklists', () => {
  interface Line {
    id: number;
    name: string;
    builtIn: boolean;
    checks: number;
    assignments: { kind: string; target: string; title: string }[];
  }
  const lists = async () => (await mara<Line[]>('GET', '/api/checklists')).body;
  const full = async () =>
    (await mara<{ checklist: Checklist }>('GET', `/api/checklists/${(await lists())[0]!.id}`)).body.checklist;
  let ours = 0;

  it('three come along and stay as they are', async () => {
    const all = await lists();
    expect(all.map((l) => [l.name, l.builtIn])).toEqual([
      ['Full', true],
      ['Quick launch', true],
      ['Monthly look', true],
    ]);
    expect(all[0]!.assignments).toEqual([{ kind: 'default', target: '', title: 'all other sites' }]);
    expect((await mara('PUT', `/api/checklists/${all[0]!.id}`, await full())).status).toBe(409);
    expect((await mara('DELETE', `/api/checklists/${all[0]!.id}`)).status).toBe(409);
  });
  it('a copy is one’s own; a name is taken once; what is not right is refused with its line', async () => {
    const made = await mara<{ id: number }>('POST', '/api/checklists', { ...(await full()), name: 'Ours' });
    expect(made.status).toBe(200);
    ours = made.body.id;
    expect((await mara('POST', '/api/checklists', { ...(await full()), name: 'Ours' })).status).toBe(409);
    for (const bad of [
      { items: [{ check: 'https.magic' }] },
      { items: [{ check: 'https.certificate-days', parameters: { days: 91 } }] },
      { items: [{ check: 'https.answers', weight: -1 }] },
      { items: 'all' },
      { own: [{ id: 'https.mine' }] },
    ])
      expect(
        (
          await mara<{ message: string }>('PUT', `/api/checklists/${ours}`, {
            name: 'Ours',
            items: [],
            ...bad,
          })
        ).status,
        JSON.stringify(bad),
      ).toBe(400);
  });
  it('shows beforehand what would change, keeping nothing', async () => {
    const { id } = await site('Sallow Ferries');
    const live = await place('Sallow Ferries');
    const before = await ledger(live.id);
    const list = await full();
    const wanted = {
      ...list,
      name: 'Ours',
      items: list.items.map((i) =>
        i.check === 'https.hsts' ? { ...i, severity: 'blocker' as const, weight: 100 } : i,
      ),
    };
    const { job: jobId } = (
      await mara<{ job: string }>('POST', '/api/checklists/look-ahead', { checklist: wanted, siteIds: [id] })
    ).body;
    const done = await job(jobId);
    expect(done).toMatchObject({ status: 'done', done: done.total });
    const ahead = done.results.find((r) => r.place === 'Live')!;
    expect(ahead.changes).toEqual([
      expect.objectContaining({ check: 'https.hsts', from: 'failed, major', to: 'failed, blocker' }),
    ]);
    expect(ahead.before.score).toBe(before.audit.result.score);
    expect(ahead.after.score).toBeLessThan(ahead.before.score);
    // on staging, where it passes, its weight alone counts for more
    expect(
      done.results.find((r) => r.place === 'Staging')!.changes.map((c) => [c.check, c.from, c.to]),
    ).toEqual([]);
    expect(await ledger(live.id)).toEqual(before);
  });
  it('assigned, saved and judged again: the ledger follows, and history says the rule changed', async () => {
    const pots = await site('Curlew Point Bird Station');
    const live = await place('Curlew Point Bird Station');
    const list = await full();
    const items = [
      { check: 'own.kiln' },
      ...list.items
        .filter((i) => !['delivery.upkeep', 'delivery.page-weight'].includes(i.check))
        .map((i) =>
          i.check === 'https.hsts'
            ? { ...i, title: 'Stay on https', note: 'ask the host', severity: 'minor' as const }
            : i,
        ),
    ];
    const own = [
      {
        id: 'own.kiln',
        section: 'delivery' as const,
        title: 'The kiln is named',
        severity: 'major' as const,
        situations: ['staging' as const, 'live' as const],
        test: {
          look: 'text' as const,
          is: 'there' as const,
          value: 'no such words stand here',
          on: 'home' as const,
        },
      },
    ];
    expect(
      (await mara<{ version: number }>('PUT', `/api/checklists/${ours}`, { name: 'Ours', items, own })).body
        .version,
    ).toBe(2);
    expect(
      (
        await mara('PUT', `/api/checklists/${ours}/assignments`, {
          assignments: [{ kind: 'site', target: String(pots.id) }],
        })
      ).status,
    ).toBe(200);
    const started = (
      await mara<{ job: string }>('POST', '/api/checklists/judge-again', { siteIds: [pots.id] })
    ).body.job;
    expect(await job(started)).toMatchObject({ status: 'done' });
    const now = await ledger(live.id);
    expect(now.audit.checklist).toBe('Ours, version 2');
    expect(now.findings.find((f) => f.check === 'https.hsts')).toMatchObject({
      title: 'Stay on https',
      note: 'ask the host',
      severity: 'minor',
    });
    expect(now.findings.find((f) => f.check === 'own.kiln')).toMatchObject({
      outcome: 'failed',
      fix: { state: 'open' },
    });
    expect(now.findings.some((f) => f.check === 'delivery.page-weight')).toBe(false);
    // its host calls for this one, whatever the checklist says
    expect(now.findings.find((f) => f.check === 'delivery.upkeep')).toMatchObject({ outcome: 'untested' });
    expect((await history(live.id))[0]).toMatchObject({
      cause: 'checklist',
      reasons: ['another checklist'],
      judgedBy: { checklist: 'Ours 2' },
    });
  });
  it('an audit collects what own checks ask for', async () => {
    const list = await full();
    const check = (id: string, test: object) => ({
      id,
      section: 'delivery' as const,
      title: id,
      severity: 'minor' as const,
      situations: ['staging', 'live'],
      test,
    });
    const own = [
      check('own.heading', { look: 'element', at: 'h1', is: 'there', on: 'home' }),
      check('own.path', { look: 'status', at: '/no-such-thing/', is: 'equals', value: '200' }),
      check('own.record', { look: 'record', at: '_none.{domain}', type: 'TXT', is: 'missing' }),
    ];
    await mara('PUT', `/api/checklists/${ours}`, {
      name: 'Ours',
      items: [...list.items, ...own.map((o) => ({ check: o.id }))],
      own,
    });
    const live = await place('Curlew Point Bird Station');
    await mara('POST', '/api/audits', { environmentIds: [live.id] });
    await served.settled();
    const now = await ledger(live.id);
    expect(
      Object.fromEntries(own.map((o) => [o.id, now.findings.find((f) => f.check === o.id)!.outcome])),
    ).toEqual({ 'own.heading': 'passed', 'own.path': 'failed', 'own.record': 'passed' });
  });
  it('the nearest assignment wins: site, client, host, then all others', async () => {
    const ids = Object.fromEntries((await lists()).map((l) => [l.name, l.id]));
    const judgedBy = async (name: string) =>
      (await mara<{ sites: { name: string }[] }>('GET', `/api/checklists/${ids[name]}`)).body.sites.map(
        (s) => s.name,
      );
    const boat = (await mara<Row[]>('GET', '/api/roster')).body.find((r) => r.name === 'Lifeboat Loft')!;
    const clients = (await mara<{ id: number; name: string }[]>('GET', '/api/clients')).body;
    const hosts = (await mara<{ id: number; name: string }[]>('GET', '/api/host-profiles')).body;
    const cairn = hosts.find((h) => h.name === 'Cairn Builder')!;
    await mara('PUT', `/api/checklists/${ids['Monthly look']}/assignments`, {
      assignments: [
        { kind: 'host', target: String(cairn.id) },
        { kind: 'default', target: '' },
      ],
    });
    await mara('PUT', `/api/checklists/${ids['Quick launch']}/assignments`, {
      assignments: [{ kind: 'client', target: String(clients.find((c) => c.name === boat.client)!.id) }],
    });
    expect(await judgedBy('Quick launch')).toContain('Lifeboat Loft');
    expect(await judgedBy('Monthly look')).not.toContain('Lifeboat Loft');
    expect(await judgedBy('Full')).toEqual([]);
    expect(await judgedBy('Ours')).toEqual(['Curlew Point Bird Station']);
    for (const name of ['Monthly look', 'Quick launch'])
      await mara('PUT', `/api/checklists/${ids[name]}/assignments`, { assignments: [] });
    expect((await judgedBy('Full')).length).toBe(23);
  });
  it('one that audits were made by stays; long work can be stopped', async () => {
    expect((await mara('DELETE', `/api/checklists/${ours}`)).status).toBe(409);
    const all = (await mara<Row[]>('GET', '/api/roster')).body.map((r) => r.id);
    const { job: id } = (
      await mara<{ job: string }>('POST', '/api/checklists/look-ahead', {
        checklist: await full(),
        siteIds: all,
      })
    ).body;
    expect((await mara<{ id: string }[]>('GET', '/api/jobs')).body.map((j) => j.id)).toContain(id);
    await mara('POST', `/api/jobs/${id}/stop`);
    const stopped = await job(id);
    expect(stopped.status).toBe('stopped');
    expect(stopped.done).toBeLessThan(stopped.total);
    expect((await mara('GET', '/api/jobs/none')).status).toBe(404);
  });
});

describe('host profiles', () => {
  interface Line {
    id: number;
    name: string;
    profile: Record<string, unknown>;
    sites: number;
  }
  const list = async (): Promise<Line[]> => (await mara<Line[]>('GET', '/api/host-profiles')).body;
  const at = async (name: string): Promise<string> =>
    `/api/host-profiles/${(await list()).find((p) => p.name === name)?.id ?? 999_999}`;
  it('four come along; a copy, a change and a new name are versions of their own', async () => {
    const all = await list();
    expect(all.map((p) => p.name)).toEqual([
      'Cairn Builder',
      'Fennel Hosting',
      'Quayside Pages',
      'Samphire Servers',
    ]);
    for (const p of all)
      expect(p.profile).toMatchObject({
        records: expect.any(Array) as unknown[],
        handChecks: expect.any(Array) as string[],
        backups: expect.any(String) as string,
      });
    expect(
      (await mara('POST', '/api/host-profiles', { ...all[0]!.profile, name: 'Cairn copy' })).status,
    ).toBe(200);
    expect(
      (await mara('POST', '/api/host-profiles', { ...all[0]!.profile, name: 'Cairn copy' })).status,
    ).toBe(409);
    expect(
      (await mara('POST', '/api/host-profiles', { name: 'Bad', icons: { required: ['x'] } })).status,
    ).toBe(400);
    const copy = await at('Cairn copy');
    const renamed = { ...all[0]!.profile, name: 'Cairn two', descriptionLimit: 99 };
    expect((await mara('PUT', copy, renamed)).body).toEqual({ version: 2, job: null });
    const detail = (await mara<{ name: string; versions: { changes: { field: string }[] }[] }>('GET', copy))
      .body;
    expect(detail.name).toBe('Cairn two');
    expect(detail.versions[0]!.changes.map((c) => c.field).sort()).toEqual(['descriptionLimit', 'name']);
    expect((await mara('PUT', copy, { ...renamed, name: 'Cairn Builder' })).status).toBe(409);
    expect((await mara('DELETE', copy)).status).toBe(200);
    expect((await mara('GET', copy)).status).toBe(404);
    expect((await mara('DELETE', await at('Cairn Builder'))).status).toBe(409);
  });
  it('another name is another name for its sites too', async () => {
    const path = await at('Quayside Pages');
    const { profile } = (await mara<{ profile: Record<string, unknown> }>('GET', path)).body;
    const sitesAt = async (name: string): Promise<number> =>
      (await mara<{ hostProfile: string | null }[]>('GET', '/api/roster')).body.filter(
        (s) => s.hostProfile === name,
      ).length;
    const before = await sitesAt('Quayside Pages');
    expect(before).toBeGreaterThan(0);
    for (const name of ['Quayside Two', 'Quayside Pages']) {
      const { job: id } = (await mara<{ job: string }>('PUT', path, { ...profile, name })).body;
      expect(await sitesAt(name)).toBe(before);
      await job(id);
    }
  });
  it('saved twice at once: two versions or a conflict, never a fault of the server', async () => {
    const { id } = (
      await mara<{ id: number }>('POST', '/api/host-profiles', { name: 'Raced', descriptionLimit: 1 })
    ).body;
    const saves = await Promise.all(
      [2, 3, 4, 5].map((descriptionLimit) =>
        mara('PUT', `/api/host-profiles/${id}`, { name: 'Raced', descriptionLimit }),
      ),
    );
    for (const s of saves) expect([200, 409]).toContain(s.status);
    const { versions } = (await mara<{ versions: { version: number }[] }>('GET', `/api/host-profiles/${id}`))
      .body;
    expect(versions.map((v) => v.version)).toEqual(
      Array.from({ length: versions.length }, (_, i) => versions.length - i),
    );
    expect(versions).toHaveLength(1 + saves.filter((s) => s.status === 200).length);
    expect((await mara('DELETE', `/api/host-profiles/${id}`)).status).toBe(200);
  });
  it('saving one judges its sites’ stored evidence by it', async () => {
    const live = await place('Tarn Planetarium');
    const { profile } = (await mara<{ profile: Record<string, unknown> }>('GET', await at('Fennel Hosting')))
      .body;
    const before = await finding(live.id, 'metadata.description-length');
    const { job: id } = (
      await mara<{ job: string }>('PUT', await at('Fennel Hosting'), { ...profile, descriptionLimit: 20 })
    ).body;
    expect(await job(id)).toMatchObject({ status: 'done' });
    const [newest] = await history(live.id);
    expect(newest).toMatchObject({ cause: 'host profile', reasons: ['host profile 1 → 2'] });
    expect((await finding(live.id, 'metadata.description-length')).outcome).not.toBe(before.outcome);
    await job((await mara<{ job: string }>('PUT', await at('Fennel Hosting'), profile)).body.job);
  });
  it('learns defaults from an untouched site', async () => {
    await mara('POST', '/api/practice-net', {
      site: 'curlew',
      environment: 'live',
      fault: 'sample-home',
      on: true,
    });
    const url = (
      await mara<{ places: { url: string; kind: string }[] }>(
        'GET',
        `/api/sites/${(await site('Curlew Point Bird Station')).id}`,
      )
    ).body.places.find((p) => p.kind === 'live')!.url;
    const answer = await mara<{ learnt: { field: string; values: string[] }[] }>(
      'POST',
      '/api/host-profiles/learn',
      { url, profile: { name: 'New' } },
    );
    expect(answer.status).toBe(200);
    expect(answer.body.learnt.find((l) => l.field === 'titles')!.values).toContain('My Fennel site');
    await mara('POST', '/api/practice-net', {
      site: 'curlew',
      environment: 'live',
      fault: 'sample-home',
      on: false,
    });
    expect(
      (
        await mara('POST', '/api/host-profiles/learn', {
          url: 'https://no-such-host.example/',
          profile: { name: 'New' },
        })
      ).status,
    ).toBe(502);
  });
});

describe('by hand', () => {
  const PNG = Buffer.from(
    '89504e470d0a1a0a0000000d49484452000000010000000108060000001f15c4890000000a49444154789c6360000002000100ffff03000006000557bfabd40000000049454e44ae426082',
    'hex',
  );
  const attest = (id: number, body: object, who = mara) =>
    who('POST', `/api/environments/${id}/attest`, body);
  it('done, not done and does not apply, with a note, days and who', async () => {
    const { id } = await place('Tarn Planetarium');
    expect(
      (
        await attest(id, {
          check: 'delivery.backup',
          done: true,
          note: 'restored on the test machine',
          goodForDays: 10,
        })
      ).status,
    ).toBe(200);
    const until10 = new Date(Date.now() + 10 * 86_400_000).toISOString().slice(0, 10);
    expect(await finding(id, 'delivery.backup')).toMatchObject({
      outcome: 'passed',
      attestations: [{ by: 'Mara Quill', note: 'restored on the test machine', goodUntil: until10 }],
    });
    await attest(id, { check: 'delivery.backup', done: false }, joss);
    expect(await finding(id, 'delivery.backup')).toMatchObject({ outcome: 'failed', fix: { state: 'open' } });
    expect((await attest(id, { check: 'delivery.backup', done: false, doesNotApply: true })).status).toBe(
      400,
    );
    await attest(id, {
      check: 'delivery.backup',
      done: false,
      doesNotApply: true,
      note: 'static, in version control',
    });
    expect((await finding(id, 'delivery.backup')).outcome).toBe('inapplicable');
    for (const body of [
      { check: 'https.answers', done: true },
      { check: 'delivery.backup' },
      { check: 'delivery.backup', done: true, goodForDays: 0 },
      { check: 'delivery.backup', done: true, attachmentId: 999_999 },
    ])
      expect((await attest(id, body)).status, JSON.stringify(body)).toBe(400);
  });
  it('good until the stage changes', async () => {
    const { id } = await place('Windrow Kite Works', 'Staging');
    const kites = await site('Windrow Kite Works');
    await attest(id, { check: 'delivery.backup', done: true, untilStageChanges: true });
    expect((await finding(id, 'delivery.backup')).outcome).toBe('passed');
    await mara('PUT', `/api/sites/${kites.id}/stage`, { stage: 'pre-launch' });
    expect(await finding(id, 'delivery.backup')).toMatchObject({
      outcome: 'untested',
      reason: expect.stringContaining('while the site was building') as string,
    });
    await mara('PUT', `/api/sites/${kites.id}/stage`, { stage: 'building' });
  });
  it('forms that the audit found are attested one by one', async () => {
    const { id } = await place('Tarn Planetarium');
    const before = await finding(id, 'delivery.forms-arrive');
    expect(before.outcome).toBe('untested');
    expect(before.places.length).toBeGreaterThan(0);
    for (const p of before.places)
      await attest(id, { check: 'delivery.forms-arrive', done: true, place: p.place });
    expect((await finding(id, 'delivery.forms-arrive')).outcome).toBe('passed');
  });
  it('a picture goes along; what is too large, of no known kind or empty is refused; nothing of it runs', async () => {
    const { id } = await place('Tarn Planetarium');
    const up = (bytes: Buffer, name = 'proof.png') =>
      mara<{ id: number; name: string; type: string; message: string }>(
        'POST',
        `/api/environments/${id}/files`,
        new Uint8Array(bytes),
        { 'x-file-name': encodeURIComponent(name) },
      );
    const kept = (await up(PNG, '../phöto\u0007.png')).body;
    expect(kept).toMatchObject({ name: '..phöto.png', type: 'image/png' });
    await attest(id, { check: 'delivery.upkeep', done: true, attachmentId: kept.id });
    expect((await finding(id, 'delivery.upkeep')).attestations[0]!.file).toMatchObject({ id: kept.id });
    const shown = await mara('GET', `/api/files/${kept.id}`);
    expect([
      shown.headers.get('content-type'),
      shown.headers.get('x-content-type-options'),
      shown.headers.get('content-security-policy'),
    ]).toEqual(['image/png', 'nosniff', "default-src 'none'; sandbox"]);
    const text = (await up(Buffer.from('<script>alert(1)</script>'), 'x.html')).body;
    expect(text.type).toBe('text/plain; charset=utf-8');
    expect((await mara('GET', `/api/files/${text.id}`)).headers.get('content-disposition')).toMatch(
      /^attachment/,
    );
    for (const [bytes, words] of [
      [Buffer.alloc(0), /empty/],
      [Buffer.from([0, 1, 2, 3]), /not this file/],
      [Buffer.concat([PNG, Buffer.alloc(5 * 1024 * 1024)]), /larger than 5 MB/],
    ] as const) {
      const a = await up(bytes);
      expect([400, 413]).toContain(a.status);
      if (a.status === 400) expect(a.body.message).toMatch(words);
    }
    expect((await served.caller()('GET', `/api/files/${kept.id}`)).status).toBe(401);
    expect((await mara('GET', '/api/files/999999')).status).toBe(404);
  });
});

describe('what ends by itself', () => {
  interface Message {
    id: number;
    text: string;
    link: string;
    read: boolean;
  }
  const messages = async (who: Caller) => (await who<Message[]>('GET', '/api/messages')).body;
  it('an acceptance that ends counts again, and the one who asked is told', async () => {
    const { id } = await place('Saltmarsh Seed Library');
    const fault = (await ledger(id)).findings.find(
      (f) => f.outcome === 'failed' && f.severity !== 'blocker' && !f.accepted,
    )!;
    const soon = new Date(Date.now() + 5 * 86_400_000).toISOString().slice(0, 10);
    expect(
      (
        await mara('POST', `/api/fixes/${fault.fix!.id}/accept`, {
          reason: 'the client wants it so',
          until: soon,
        })
      ).status,
    ).toBe(200);
    expect((await finding(id, fault.check)).accepted).toBe(true);
    await sql('UPDATE acceptance SET until = ? WHERE environment_id = ? AND check_id = ?', [
      '2026-01-01',
      id,
      fault.check,
    ]);
    const told = await until(
      () => messages(mara),
      (list) => list.some((m) => m.link.includes(fault.check)),
    );
    expect(told[0]).toMatchObject({
      read: false,
      text: expect.stringMatching(/was left on purpose until 2026-01-01\. It counts again\.$/) as string,
      link: expect.stringContaining(`place=${id}&check=${fault.check}`) as string,
    });
    const again = await finding(id, fault.check);
    expect([again.accepted ?? false, again.fix!.state]).toEqual([false, 'open']);
    expect((await history(id))[0]).toMatchObject({
      cause: 'time',
      reasons: expect.arrayContaining(['something ended']) as string[],
    });
    await mara('POST', '/api/messages', { upTo: told[0]!.id });
    expect((await messages(mara)).every((m) => m.read)).toBe(true);
    expect((await messages(joss)).some((m) => m.link.includes(fault.check))).toBe(false);
  });
  it('an attestation that ends is untested again, and whoever vouched is told once', async () => {
    const { id } = await place('Saltmarsh Seed Library');
    await joss('POST', `/api/environments/${id}/attest`, {
      check: 'delivery.backup',
      done: true,
      goodForDays: 3,
    });
    await sql('UPDATE attestation SET good_until = ? WHERE environment_id = ? AND check_id = ?', [
      '2026-01-01',
      id,
      'delivery.backup',
    ]);
    await until(
      () => messages(joss),
      (list) => list.some((m) => m.text.includes('good until 2026-01-01')),
    );
    expect((await finding(id, 'delivery.backup')).outcome).toBe('untested');
    const { length } = await messages(joss);
    // another sweep has passed when something later was told
    await joss('POST', `/api/environments/${id}/attest`, {
      check: 'delivery.upkeep',
      done: true,
      goodForDays: 3,
    });
    await sql('UPDATE attestation SET good_until = ? WHERE environment_id = ? AND check_id = ?', [
      '2026-01-02',
      id,
      'delivery.upkeep',
    ]);
    await until(
      () => messages(joss),
      (list) => list.some((m) => m.text.includes('good until 2026-01-02')),
    );
    expect(await messages(joss)).toHaveLength(length + 1);
  });
});

describe('sites in bulk', () => {
  it('a look marks bad cells and saves nothing; the good rows are taken on with their briefs', async () => {
    const before = (await mara<Row[]>('GET', '/api/roster')).body.length;
    const text =
      'name,client,live address,staging,mail,host profile\r\nMudlark Museum,Mudlark Trust,mudlark.example,draft.mudlark.example,hello@mudlark.example,Fennel Hosting\r\nBad,,nowhere at all,,x,No Host\r\n';
    const look = (
      await mara<{ rows: { faults: { column: number }[]; site: unknown }[] }>('POST', '/api/sites/look', {
        text,
      })
    ).body;
    expect(look.rows.map((r) => r.faults.map((f) => f.column))).toEqual([[], [2, 4, 5]]);
    expect((await mara('POST', '/api/sites/import', { text })).status).toBe(400);
    expect((await mara<Row[]>('GET', '/api/roster')).body).toHaveLength(before);
    expect((await mara('POST', '/api/sites/import', { text, onlyGood: true })).body).toEqual({
      taken: 1,
      left: 1,
    });
    const made = await site('Mudlark Museum');
    expect(made.places.map((p) => [p.name, p.kind])).toEqual([
      ['Staging', 'before'],
      ['Live', 'live'],
    ]);
    expect(
      (await mara<{ brief: { data: object } }>('GET', `/api/sites/${made.id}`)).body.brief.data,
    ).toMatchObject({ name: 'Mudlark Museum', contactEmail: 'hello@mudlark.example' });
    expect(
      (await mara<{ rows: { faults: { message: string }[] }[] }>('POST', '/api/sites/look', { text })).body
        .rows[0]!.faults[0]!.message,
    ).toContain('has a site of that name already');
  });
  it('all sites come out as the table that goes in', async () => {
    const out = await mara<string>('GET', '/api/sites/export');
    expect(out.headers.get('content-type')).toContain('text/csv');
    const look = (
      await mara<{ rows: { faults: { message: string }[] }[]; faults: string[] }>('POST', '/api/sites/look', {
        text: out.body,
      })
    ).body;
    expect(look.faults).toEqual([]);
    expect(look.rows).toHaveLength(25);
    expect(new Set(look.rows.flatMap((r) => r.faults.map((f) => f.message)))).toEqual(
      new Set(['this client has a site of that name already']),
    );
  });
});
