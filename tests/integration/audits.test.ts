/** Audits as jobs, what they leave behind, and the demo that they fill: over the routes, with a real MariaDB and the practice net. */
import { describe, expect, it } from 'vitest';
import { useDesk, type Row } from './desk';
import { until } from './served';

const { mara, roster, signIn, caller, settled, served, environmentOf, history, auditAgain, turn } = useDesk(
  '.test/audits',
  { ARMBAND_LEASE: '3' },
);

describe('the demo', () => {
  it('has 24 sites, every environment audited once, in the situations that follow from their stage', async () => {
    const lines = await roster();
    expect(lines).toHaveLength(24);
    const rows = await Promise.all(
      lines.map(async ({ id }) => (await mara<Row>('GET', `/api/sites/${id}`)).body),
    );
    for (const r of rows)
      for (const p of r.environments)
        if (!p.audit)
          throw new Error(
            `${r.name} ${p.name} was not audited: ${JSON.stringify((await mara('GET', `/api/environments/${p.id}/audits`)).body)}`,
          );
    const situations = Object.fromEntries(
      rows.map((r) => [r.name, r.environments.map((p) => p.situation).join(' ')]),
    );
    expect(situations).toMatchObject({
      'Tarn Planetarium': 'staging live',
      'Lifeboat Loft': 'staging holding',
      'Windrow Kite Works': 'staging staging former',
      'Firth Tram Society': 'staging staging staging former',
    });
  });
});

describe('evidence as files', () => {
  it.each([
    ['json', 'application/json', '"version":2'],
    ['har', 'application/json', '"version":"1.2"'],
    ['zone', 'text/dns', 'IN NS ns1.registry.example.'],
  ])('as %s, to be saved and never shown', async (as, type, part) => {
    const { id } = await environmentOf('Tarn Planetarium', 'Live');
    const audit = (await history(id))[0]!.auditId;
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
  it('a second one for the same environment is refused politely, and a running one can be stopped', async () => {
    const { id } = await environmentOf('Saltmarsh Seed Library', 'Live');
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
    expect((await history(id))[0]).toMatchObject({ auditId: first, status: 'stopped' });
    expect((await mara('POST', `/api/audits/${first}/stop`)).status).toBe(409);
    await auditAgain(id);
  });
  it('a crash in the middle: it starts again by itself, and says so', async () => {
    const { id } = await environmentOf('Saltmarsh Seed Library', 'Live');
    await turn('seeds', 'live', 'slow', true);
    await mara('POST', '/api/audits', { environmentIds: [id] });
    const running = async () =>
      (await mara<{ phase: string }[]>('GET', '/api/audits/running')).body.map((a) => a.phase);
    await until(running, ([phase]) => phase === 'Names and hosts');
    const gone = new Promise((r) => served.stack.app.once('exit', r));
    served.stack.app.kill('SIGKILL');
    await gone;
    await served.stop();
    await served.again();
    await signIn();
    await turn('seeds', 'live', 'slow', false);
    await until(running, ([phase = '']) => phase.startsWith('Started again after it was cut off'));
    await settled();
    expect((await history(id))[0]).toMatchObject({
      status: 'done',
      reasons: expect.arrayContaining(['cut off 1 time, started again by itself']) as string[],
    });
  });
});
