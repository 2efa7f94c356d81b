/** Host profiles with their versions: over the routes, with a real MariaDB and the practice net. */
import { describe, expect, it } from 'vitest';
import { useDesk } from './desk';

const { mara, site, environment, finding, history, job } = useDesk('.test/hosts');

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
    expect((await mara('PUT', `${copy}?from=1`, renamed)).body).toEqual({ version: 2, job: null });
    expect((await mara('GET', copy)).body).toMatchObject({ name: 'Cairn two', version: 2 });
    const { rows } = (await mara<{ rows: { changes: { field: string }[] }[] }>('GET', `${copy}/versions`))
      .body;
    expect(rows[0]!.changes.map((c) => c.field).sort()).toEqual(['descriptionLimit', 'name']);
    expect((await mara('PUT', `${copy}?from=2`, { ...renamed, name: 'Cairn Builder' })).status).toBe(409);
    expect((await mara('DELETE', copy)).status).toBe(200);
    expect((await mara('GET', copy)).status).toBe(404);
    expect((await mara('DELETE', await at('Cairn Builder'))).status).toBe(409);
  });
  it('another name is another name for its sites too', async () => {
    const path = await at('Quayside Pages');
    const { profile } = (await mara<{ profile: Record<string, unknown> }>('GET', path)).body;
    const sitesAt = async (name: string): Promise<number> =>
      (await mara<{ rows: object[] }>('GET', `/api/roster?words=${encodeURIComponent(name)}`)).body.rows
        .length;
    const before = await sitesAt('Quayside Pages');
    expect(before).toBeGreaterThan(0);
    for (const [from, name] of [
      [1, 'Quayside Two'],
      [2, 'Quayside Pages'],
    ] as const) {
      const { job: id } = (await mara<{ job: number }>('PUT', `${path}?from=${from}`, { ...profile, name }))
        .body;
      expect(await sitesAt(name)).toBe(before);
      await job(id);
    }
  });
  it('saved by several at once: one is kept, the others are told; never a fault of the server', async () => {
    const { id } = (
      await mara<{ id: number }>('POST', '/api/host-profiles', { name: 'Raced', descriptionLimit: 1 })
    ).body;
    const saves = await Promise.all(
      [2, 3, 4, 5].map((descriptionLimit) =>
        mara('PUT', `/api/host-profiles/${id}?from=1`, { name: 'Raced', descriptionLimit }),
      ),
    );
    expect(saves.map((s) => s.status).sort()).toEqual([200, 409, 409, 409]);
    const { rows } = (await mara<{ rows: { version: number }[] }>('GET', `/api/host-profiles/${id}/versions`))
      .body;
    expect(rows.map((v) => v.version)).toEqual([2, 1]);
    expect((await mara('DELETE', `/api/host-profiles/${id}`)).status).toBe(200);
  });
  it('saving one judges its sites’ stored evidence by it', async () => {
    const live = await environment('Tarn Planetarium');
    const { profile } = (await mara<{ profile: Record<string, unknown> }>('GET', await at('Fennel Hosting')))
      .body;
    const before = await finding(live.id, 'metadata.description-length');
    const { job: id } = (
      await mara<{ job: number }>('PUT', `${await at('Fennel Hosting')}?from=1`, {
        ...profile,
        descriptionLimit: 20,
      })
    ).body;
    expect(await job(id)).toMatchObject({ status: 'done' });
    const [newest] = await history(live.id);
    expect(newest).toMatchObject({ cause: 'host profile', reasons: ['host profile 1 → 2'] });
    expect((await finding(live.id, 'metadata.description-length')).outcome).not.toBe(before.outcome);
    await job((await mara<{ job: number }>('PUT', `${await at('Fennel Hosting')}?from=2`, profile)).body.job);
  });
  it('learns defaults from an untouched site', async () => {
    await mara('POST', '/api/practice-net', {
      site: 'curlew',
      environment: 'live',
      fault: 'sample-home',
      on: true,
    });
    const url = (
      await mara<{ environments: { url: string; kind: string }[] }>(
        'GET',
        `/api/sites/${(await site('Curlew Point Bird Station')).id}`,
      )
    ).body.environments.find((p) => p.kind === 'live')!.url;
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
