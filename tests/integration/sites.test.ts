/** Sites, their briefs with versions, their environments, and many at once: over the routes, with a real MariaDB and the practice net. */
import { describe, expect, it } from 'vitest';
import { useDesk } from './desk';
import { until } from './served';

const { mara, joss, roster, site, environment, ledger, finding, history, environmentOf, auditAgain, turn } =
  useDesk('.test/sites');

describe('the brief', () => {
  interface Version {
    version: number;
    savedBy: string;
    changes: { field: string; kind: string }[];
    data: Record<string, unknown>;
  }
  const versions = async (id: number) =>
    (await mara<{ rows: Version[] }>('GET', `/api/sites/${id}/briefs`)).body.rows;

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
    expect(
      await finding((await environment('Curlew Point Bird Station')).id, 'identity.phone'),
    ).toMatchObject({
      outcome: 'inapplicable',
      reason: 'not wanted: the workshop has none',
    });
    expect((await mara('POST', `/api/sites/${id}/bring-back`, { version: first!.version })).status).toBe(200);
    expect((await versions(id))[0]!.data).toMatchObject({
      tagline: first!.data.tagline,
      phone: first!.data.phone,
    });
    expect((await history((await environment('Curlew Point Bird Station')).id))[0]).toMatchObject({
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
    const { id } = await environment('Sallow Ferries');
    const before = await finding(id, 'identity.phone');
    expect(before.outcome).toBe('failed');
    const at = before.places.find((p) => p.adopt)!;
    expect(
      (
        await mara<{ field: string }>('POST', '/api/adopt', {
          environmentId: id,
          check: 'identity.phone',
          place: at.place,
        })
      ).body.field,
    ).toBe('phone');
    expect((await finding(id, 'identity.phone')).outcome).toBe('passed');
    expect(
      (await mara('POST', '/api/adopt', { environmentId: id, check: 'identity.phone', place: at.place }))
        .status,
    ).toBe(409);
    expect(
      (await mara('POST', '/api/adopt', { environmentId: id, check: 'identity.nothing', place: 'x' })).status,
    ).toBe(404);
  });
  it('a launch: what was seen before is not taken for live, and live is audited by itself', async () => {
    const { id, environments } = await site('Windrow Kite Works');
    const live = environments.find((p) => p.name === 'Live')!;
    expect(live.situation).toBe('former');
    const audits = async () =>
      (await history(live.id)).filter((v) => v.cause === 'audit' && v.status === 'done');
    const looked = (await audits()).length;
    expect((await mara('PATCH', `/api/sites/${id}`, { stage: 'launched' })).status).toBe(200);
    expect((await environment('Windrow Kite Works')).situation).toBe('former');
    await until(audits, (all) => all.length > looked);
    expect((await environment('Windrow Kite Works')).situation).toBe('live');
    expect((await ledger(live.id)).lines.some((f) => f.check === 'indexing.let-in')).toBe(true);
    const launched = (await mara<{ launchedAt: string | null }>('GET', `/api/sites/${id}`)).body;
    expect(Date.parse(launched.launchedAt!)).toBeLessThanOrEqual(Date.now());
    // back again: what is wanted now is said of what is known, without another audit
    await mara('PATCH', `/api/sites/${id}`, { stage: 'building' });
    const [newest] = await history(live.id);
    expect(newest).toMatchObject({
      cause: 'stage',
      reasons: expect.arrayContaining(['another situation']) as string[],
    });
    expect(await audits()).toHaveLength(looked + 1);
  });
});

describe('sites in bulk', () => {
  it('a look marks bad cells and saves nothing; the good rows are added with their briefs', async () => {
    const before = (await roster()).length;
    const text =
      'name,client,live address,staging,mail,host profile\r\nMudlark Museum,Mudlark Trust,mudlark.example,draft.mudlark.example,hello@mudlark.example,Fennel Hosting\r\nBad,,nowhere at all,,x,No Host\r\n';
    const look = (
      await mara<{ rows: { faults: { column: number }[]; site: unknown }[] }>('POST', '/api/sites/look', {
        text,
      })
    ).body;
    expect(look.rows.map((r) => r.faults.map((f) => f.column))).toEqual([[], [2, 4, 5]]);
    expect((await mara('POST', '/api/sites/import', { text })).status).toBe(400);
    expect(await roster()).toHaveLength(before);
    expect((await mara('POST', '/api/sites/import', { text, onlyGood: true })).body).toEqual({
      taken: 1,
      left: 1,
    });
    const made = await site('Mudlark Museum');
    expect(made.environments.map((p) => [p.name, p.kind])).toEqual([
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

describe('taking a site on', () => {
  const newSite = (name: string) => ({
    name,
    client: 'Seed Library',
    liveUrl: 'https://saltmarsh-seeds.example/',
    environments: [{ name: 'Draft', url: 'https://shared.preview.fennel-hosting.example/rope-walk/' }],
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
  it('added twice at the same moment: once it is, the other time that is told', async () => {
    const wanted = { ...newSite('At once'), client: 'Tarn Planetarium Trust' };
    const all = [mara, joss, mara, joss].map((person) => person('POST', '/api/sites', wanted));
    expect((await Promise.all(all)).map((a) => a.status).sort()).toEqual([200, 409, 409, 409]);
  });
  it('keeps everything, is audited, and its brief is versioned; a second of that name is refused', async () => {
    const {
      body: { id },
    } = await mara<{ id: number }>('POST', '/api/sites', newSite('A second look'));
    expect((await mara('POST', '/api/sites', newSite('A second look'))).status).toBe(409);
    const live = await environmentOf('A second look', 'Live'),
      draft = await environmentOf('A second look', 'Draft');
    await auditAgain(live.id);
    expect((await environmentOf('A second look', 'Live')).audit).not.toBeNull();
    const compared = () => finding(live.id, 'delivery.live-equals-staging');
    expect((await compared()).reason).toContain('no audit of staging');
    await auditAgain(draft.id);
    await until(compared, (f) => !f.reason?.includes('no audit of staging'));
    // both at once: whichever is kept last sees the other
    await mara('POST', '/api/sites', newSite('A third look'));
    const both = [await environmentOf('A third look', 'Live'), await environmentOf('A third look', 'Draft')];
    await Promise.all(both.map((p) => auditAgain(p.id)));
    await until(
      () => finding(both[0]!.id, 'delivery.live-equals-staging'),
      (f) => !f.reason?.includes('no audit of staging'),
    );
    expect((await finding(live.id, 'identity.phone')).outcome).toBe('untested');
    expect(
      (await mara<{ version: number }>('PUT', `/api/sites/${id}/brief`, { phone: '+441632960512' })).body
        .version,
    ).toBe(2);
    expect((await finding(live.id, 'identity.phone')).outcome).toBe('passed');
    expect((await mara('PUT', `/api/sites/${id}/brief`, { phone: null })).status).toBe(200);
    expect((await finding(live.id, 'identity.phone')).outcome).toBe('untested');
    expect(
      (await mara<{ message: string }>('PUT', `/api/sites/${id}/brief`, { preferredHost: 'https://x/' }))
        .status,
    ).toBe(400);
  });
  it('changing the stage says at once what is wanted now', async () => {
    const { id } = await site('A second look');
    const live = await environmentOf('A second look', 'Live');
    await mara('PATCH', `/api/sites/${id}`, { stage: 'pre-launch' });
    expect((await finding(live.id, 'indexing.kept-out')).outcome).toBe('failed');
    await mara('PATCH', `/api/sites/${id}`, { stage: 'launched' });
    await until(
      () => finding(live.id, 'indexing.kept-out'),
      (f) => (f as { statusCode?: number }).statusCode === 404,
    );
    await mara('PATCH', `/api/sites/${id}`, { stage: 'retired' });
    expect(
      (await mara<{ refused: { reason: string }[] }>('POST', '/api/audits', { environmentIds: [live.id] }))
        .body.refused[0]!.reason,
    ).toContain('retired');
  });
});

describe('environments and access', () => {
  const secret = 'a-long-password-of-the-tests';
  it('what is secret is kept sealed, used on that host alone, and shown nowhere', async () => {
    const { id: siteId } = await site('Saltmarsh Seed Library');
    await turn('seeds', 'staging', 'unlocked', false);
    const environment = await environmentOf('Saltmarsh Seed Library', 'Staging');
    const url = 'https://test.saltmarsh-seeds.example/';
    expect(
      await mara<{ message: string }>('PUT', `/api/environments/${environment.id}`, {
        name: 'Staging',
        url,
        access: { kind: 'credentials', name: 'marram' },
      }),
    ).toMatchObject({ status: 400, body: { message: 'Say the password.' } });
    await mara('PUT', `/api/environments/${environment.id}`, {
      name: 'Staging',
      url,
      access: { kind: 'credentials', name: 'marram', value: secret },
    });
    await auditAgain(environment.id);
    expect((await finding(environment.id, 'indexing.staging-closed')).outcome).toBe('passed');
    const everything = JSON.stringify([
      (await mara('GET', `/api/sites/${siteId}`)).body,
      (await mara('GET', `/api/environments/${environment.id}/ledger`)).body,
      (await mara('GET', '/api/roster')).body,
    ]);
    expect(everything).toContain('marram');
    expect(everything).not.toContain(secret);
    // a blank secret keeps the one that is there, but not for another host
    expect(
      (
        await mara('PUT', `/api/environments/${environment.id}`, {
          name: 'Staging',
          url,
          access: { kind: 'credentials', name: 'marram' },
        })
      ).status,
    ).toBe(200);
    expect(
      (
        await mara<{ message: string }>('PUT', `/api/environments/${environment.id}`, {
          name: 'Staging',
          url: 'https://elsewhere.example/',
          access: { kind: 'credentials', name: 'marram' },
        })
      ).body.message,
    ).toContain('another host');
  });
  it('thirty added at once: a site has at most twenty', async () => {
    const { id } = await site('Windrow Kite Works');
    const added = await Promise.all(
      Array.from({ length: 30 }, (_, i) =>
        mara<{ id: number }>('POST', `/api/sites/${id}/environments`, {
          name: `Draft ${i}`,
          url: `https://draft-${i}.kites.example/`,
        }),
      ),
    );
    expect((await site('Windrow Kite Works')).environments).toHaveLength(20);
    for (const { status, body } of added) {
      if (status === 200) await mara('DELETE', `/api/environments/${body.id}`);
      else expect(status).toBe(400);
    }
  });
  it('environments are added before the live one, changed and deleted; the live one stays', async () => {
    const { id: siteId } = await site('Pedal Kitchen');
    const {
      body: { id },
    } = await mara<{ id: number }>('POST', `/api/sites/${siteId}/environments`, {
      name: 'Draft',
      url: 'https://draft.pedal-kitchen.example/',
      setUpOn: '2026-11-01',
    });
    expect((await site('Pedal Kitchen')).environments.map((p) => p.name)).toEqual([
      'Staging',
      'Draft',
      'Live',
    ]);
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
      (await mara('DELETE', `/api/environments/${(await environmentOf('Pedal Kitchen', 'Live')).id}`)).status,
    ).toBe(409);
    expect((await mara('DELETE', `/api/environments/${id}`)).status).toBe(404);
  });
});
