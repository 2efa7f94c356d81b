/** Looking again at a part: only that is collected, judged whole, with the age of each part said. */
import { describe, expect, it } from 'vitest';
import { useDesk } from './desk';

const { mara, environmentOf, turn, settled, finding, ledger, history, auditAgain } =
  useDesk('.test/looking-again');

interface Ages {
  ages?: { part: string; at: string }[];
}
const look = async (body: object): Promise<void> => {
  expect((await mara<{ started: unknown[] }>('POST', '/api/audits', body)).body.started).toHaveLength(1);
  await settled();
};

describe('looking again at a part', () => {
  it('finds what changed there, leaves alone what changed elsewhere, and says how old each part is', async () => {
    const { id } = await environmentOf('Tarn Planetarium', 'Live');
    await auditAgain(id);
    expect((await finding(id, 'https.certificate-valid')).outcome).toBe('passed');
    const title = (await finding(id, 'metadata.title-present')).outcome;
    await turn('planetarium', 'live', 'expired', true);
    await turn('planetarium', 'live', 'no-hsts', true);
    await look({ environmentIds: [id], scope: { parts: ['tls'] } });
    expect((await finding(id, 'https.certificate-valid')).outcome).toBe('failed');
    // what answers over http was not asked: nothing old is passed off as new
    expect((await finding(id, 'https.hsts')).outcome).toBe('passed');
    expect((await finding(id, 'metadata.title-present')).outcome).toBe(title);
    const { times } = (await mara<{ times: Record<string, string> }>('GET', `/api/environments/${id}/ledger`))
      .body;
    expect(times.tls! > times.pages!).toBe(true);
    expect(new Set(Object.values(times)).size).toBe(2);
    const caa = (await finding(id, 'domain.caa')) as Ages;
    expect(caa.ages!.map((a) => a.part)).toEqual(['dns', 'tls']);
    const { reasons } = (await history(id))[0]!;
    expect(reasons).toContain('looked again at TLS only');
    expect(reasons).not.toContain('looked at the site anew');
    await turn('planetarium', 'live', 'expired', false);
    await turn('planetarium', 'live', 'no-hsts', false);
    await auditAgain(id);
    expect((await mara<{ times: unknown }>('GET', `/api/environments/${id}/ledger`)).body.times).toBeNull();
  });

  it('whether a fault is gone: its fix is verified, and a fix that was not looked at stays to verify', async () => {
    const { id } = await environmentOf('Tarn Planetarium', 'Live');
    await turn('planetarium', 'live', 'expired', true);
    await turn('planetarium', 'live', 'no-hsts', true);
    await auditAgain(id);
    const fixOf = async (check: string) => (await finding(id, check)).fix!;
    const certificate = await fixOf('https.certificate-valid');
    const hsts = await fixOf('https.hsts');
    await mara('PATCH', '/api/fixes', { ids: [certificate.id, hsts.id], state: 'to verify' });
    await turn('planetarium', 'live', 'expired', false);
    const started = (await mara<{ started: unknown[] }>('POST', '/api/fixes/look', { ids: [certificate.id] }))
      .body.started;
    expect(started).toHaveLength(1);
    await settled();
    expect((await fixOf('https.certificate-valid')).state).toBe('verified');
    // what answers over http was not asked again
    expect((await fixOf('https.hsts')).state).toBe('to verify');
    await mara('POST', '/api/fixes/look', { ids: [hsts.id] });
    await settled();
    expect((await fixOf('https.hsts')).state).toBe('open');
    await turn('planetarium', 'live', 'no-hsts', false);
    await auditAgain(id);
  });

  it('looks at everything where there is nothing before, or what was seen is of other hosts', async () => {
    const { id } = await environmentOf('Sallow Ferries', 'Staging');
    const lines = (await ledger(id)).lines.length;
    await look({ environmentIds: [id], scope: { checks: ['metadata.title-present'] } });
    expect((await ledger(id)).lines).toHaveLength(lines);
    expect((await history(id))[0]!.reasons).toContain('looked again at pages only');
  });

  it.each([
    ['an unknown part', { parts: ['heart'] }],
    ['no list', { checks: 'all' }],
  ])('refuses %s', async (_, scope) => {
    expect((await mara('POST', '/api/audits', { environmentIds: [1], scope })).status).toBe(400);
  });
});
