/** Checklists, what they are for, what they would change, and manual checks: over the routes, with a real MariaDB and the practice net. */
import { describe, expect, it } from 'vitest';
import type { Checklist } from '#core/facts/checklist';
import { useDesk, type Preview } from './desk';

const { mara, joss, served, roster, site, environment, ledger, finding, history, job } =
  useDesk('.test/checklists');

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
    expect((await mara('PUT', `/api/checklists/${all[0]!.id}?from=1`, await full())).status).toBe(409);
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
          await mara<{ message: string }>('PUT', `/api/checklists/${ours}?from=1`, {
            name: 'Ours',
            items: [],
            ...bad,
          })
        ).status,
        JSON.stringify(bad),
      ).toBe(400);
  });
  it('saved on what somebody else has changed since: refused, with who and what; unsaid, refused too', async () => {
    const { id } = (
      await mara<{ id: number }>('POST', '/api/checklists', { ...(await full()), name: 'Shared' })
    ).body;
    const save = (who: typeof mara, items: object[], from: string) =>
      who('PUT', `/api/checklists/${id}${from}`, { name: 'Shared', items });
    expect((await save(mara, [{ check: 'https.hsts' }], '')).status).toBe(400);
    expect((await save(mara, [{ check: 'https.hsts' }], '?from=1')).status).toBe(200);
    expect(await save(joss, [{ check: 'https.answers' }], '?from=1')).toMatchObject({
      status: 409,
      body: { message: expect.stringMatching(/^Mara Quill saved version 2 .*items/) as string },
    });
    expect((await mara('DELETE', `/api/checklists/${id}`)).status).toBe(200);
  });
  it('shows beforehand what would change, keeping nothing', async () => {
    const { id } = await site('Sallow Ferries');
    const live = await environment('Sallow Ferries');
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
      await mara<{ job: number }>('POST', '/api/checklists/preview', { checklist: wanted, siteIds: [id] })
    ).body;
    await job(jobId);
    const done = (await mara<Preview>('GET', `/api/checklists/preview/${jobId}`)).body;
    expect(done).toMatchObject({ status: 'done', done: done.total });
    const ahead = done.results.find((r) => r.environment === 'Live')!;
    expect(ahead.changes).toEqual([
      expect.objectContaining({ check: 'https.hsts', from: 'failed, major', to: 'failed, blocker' }),
    ]);
    expect(ahead.before.score).toBe(before.audit.result.score);
    expect(ahead.after.score).toBeLessThan(ahead.before.score);
    // on staging it passes, and its weight changes nothing
    expect(done.results.find((r) => r.environment === 'Staging')).toBeUndefined();
    expect(await ledger(live.id)).toEqual(before);
  });
  it('assigned, saved and re-evaluated: the ledger follows, and history says the rule changed', async () => {
    const pots = await site('Curlew Point Bird Station');
    const live = await environment('Curlew Point Bird Station');
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
      (await mara<{ version: number }>('PUT', `/api/checklists/${ours}?from=1`, { name: 'Ours', items, own }))
        .body.version,
    ).toBe(2);
    expect(
      (
        await mara('PUT', `/api/checklists/${ours}/assignments`, {
          assignments: [{ kind: 'site', target: String(pots.id) }],
        })
      ).status,
    ).toBe(200);
    const started = (
      await mara<{ job: number }>('POST', '/api/checklists/reevaluate', { siteIds: [pots.id] })
    ).body.job;
    expect(await job(started)).toMatchObject({ status: 'done' });
    const now = await ledger(live.id);
    expect(now.audit.checklist).toBe('Ours, version 2');
    expect(await finding(live.id, 'https.hsts')).toMatchObject({
      title: 'Stay on https',
      note: 'ask the host',
      severity: 'minor',
    });
    expect(now.lines.find((f) => f.check === 'own.kiln')).toMatchObject({
      outcome: 'failed',
      fix: { state: 'open' },
    });
    expect(now.lines.some((f) => f.check === 'delivery.page-weight')).toBe(false);
    // its host calls for this one, whatever the checklist says
    expect(now.lines.find((f) => f.check === 'delivery.upkeep')).toMatchObject({ outcome: 'untested' });
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
    await mara('PUT', `/api/checklists/${ours}?from=2`, {
      name: 'Ours',
      items: [...list.items, ...own.map((o) => ({ check: o.id }))],
      own,
    });
    const live = await environment('Curlew Point Bird Station');
    await mara('POST', '/api/audits', { environmentIds: [live.id] });
    await served.settled();
    const now = await ledger(live.id);
    expect(
      Object.fromEntries(own.map((o) => [o.id, now.lines.find((f) => f.check === o.id)!.outcome])),
    ).toEqual({ 'own.heading': 'passed', 'own.path': 'failed', 'own.record': 'passed' });
  });
  it('the nearest assignment wins: site, client, host, then all others', async () => {
    const ids = Object.fromEntries((await lists()).map((l) => [l.name, l.id]));
    interface Judged {
      count: number;
      some: { name: string }[];
    }
    const judgedBy = async (name: string) =>
      (await mara<{ sites: Judged }>('GET', `/api/checklists/${ids[name]}`)).body.sites;
    const boat = await site('Lifeboat Loft');
    const clients = (await mara<{ rows: { id: number; name: string }[] }>('GET', '/api/clients')).body.rows;
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
    expect((await judgedBy('Quick launch')).some.map((s) => s.name)).toContain('Lifeboat Loft');
    expect((await judgedBy('Monthly look')).some.map((s) => s.name)).not.toContain('Lifeboat Loft');
    expect(await judgedBy('Full')).toEqual({ count: 0, some: [] });
    expect((await judgedBy('Ours')).some.map((s) => s.name)).toEqual(['Curlew Point Bird Station']);
    for (const name of ['Monthly look', 'Quick launch'])
      await mara('PUT', `/api/checklists/${ids[name]}/assignments`, { assignments: [] });
    expect((await judgedBy('Full')).count).toBe(23);
  });
  it('one that audits were made by stays; long work can be stopped', async () => {
    expect((await mara('DELETE', `/api/checklists/${ours}`)).status).toBe(409);
    const all = (await roster()).map((r) => r.id);
    const { job: id } = (
      await mara<{ job: number }>('POST', '/api/checklists/preview', {
        checklist: await full(),
        siteIds: all,
      })
    ).body;
    expect(['waiting', 'running']).toContain((await mara<Preview>('GET', `/api/jobs/${id}`)).body.status);
    await mara('POST', `/api/jobs/${id}/stop`);
    const stopped = await job(id);
    expect(stopped.status).toBe('stopped');
    expect(stopped.done).toBeLessThan(stopped.total);
    expect((await mara('GET', '/api/jobs/none')).status).toBe(404);
  });
});

describe('manual checks', () => {
  const PNG = Buffer.from(
    '89504e470d0a1a0a0000000d49484452000000010000000108060000001f15c4890000000a49444154789c6360000002000100ffff03000006000557bfabd40000000049454e44ae426082',
    'hex',
  );
  const attest = (id: number, body: object, who = mara) =>
    who('POST', `/api/environments/${id}/attest`, body);
  it('done, not done and not applicable, with a note, days and who', async () => {
    const { id } = await environment('Tarn Planetarium');
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
    const { id } = await environment('Windrow Kite Works', 'Staging');
    const kites = await site('Windrow Kite Works');
    await attest(id, { check: 'delivery.backup', done: true, untilStageChanges: true });
    expect((await finding(id, 'delivery.backup')).outcome).toBe('passed');
    await mara('PATCH', `/api/sites/${kites.id}`, { stage: 'pre-launch' });
    expect(await finding(id, 'delivery.backup')).toMatchObject({
      outcome: 'untested',
      reason: expect.stringContaining('while the site was building') as string,
    });
    await mara('PATCH', `/api/sites/${kites.id}`, { stage: 'building' });
  });
  it('forms that the audit found are attested one by one', async () => {
    const { id } = await environment('Tarn Planetarium');
    const before = await finding(id, 'delivery.forms-arrive');
    expect(before.outcome).toBe('untested');
    expect(before.places.length).toBeGreaterThan(0);
    for (const p of before.places)
      await attest(id, { check: 'delivery.forms-arrive', done: true, place: p.place });
    expect((await finding(id, 'delivery.forms-arrive')).outcome).toBe('passed');
  });
  it('a picture goes along; what is too large, of no known kind or empty is refused; nothing of it runs', async () => {
    const { id } = await environment('Tarn Planetarium');
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
