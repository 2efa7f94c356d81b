/** The life of a fix, acceptances, attestations, and what ends by itself: over the routes, with a real MariaDB and the practice net. */
import { describe, expect, it } from 'vitest';
import { useDesk } from './desk';
import { until, type Caller } from './served';

const { mara, joss, environment, ledger, finding, history, sql, environmentOf, auditAgain, turn } = useDesk(
  '.test/fixes',
  { ARMBAND_SWEEP: '0.3' },
);

describe('the life of a fix', () => {
  it('opens, is set to verify, is verified only by the next audit, and comes back', async () => {
    const { id } = await environmentOf('Tarn Planetarium', 'Live');
    const before = await finding(id, 'indexing.let-in');
    expect(before).toMatchObject({ outcome: 'failed', fix: { state: 'open' } });
    const fix = before.fix!.id;
    expect(
      (await mara<{ message: string }>('PATCH', `/api/fixes/${fix}`, { state: 'verified' })).status,
    ).toBe(409);
    expect(
      (
        await mara('PATCH', `/api/fixes/${fix}`, {
          state: 'in progress',
          ownerId: 2,
          dueDate: '2026-12-01',
          comment: 'looking',
        })
      ).status,
    ).toBe(200);
    await mara('PATCH', `/api/fixes/${fix}`, { state: 'to verify' });
    await auditAgain(id);
    expect((await finding(id, 'indexing.let-in')).fix!.state).toBe('open');
    await mara('PATCH', `/api/fixes/${fix}`, { state: 'to verify' });
    await turn('planetarium', 'live', 'noindex-left', false);
    await auditAgain(id);
    expect(await finding(id, 'indexing.let-in')).toMatchObject({
      outcome: 'passed',
      fix: { state: 'verified' },
    });
    await turn('planetarium', 'live', 'noindex-left', true);
    await auditAgain(id);
    expect((await finding(id, 'indexing.let-in')).fix).toMatchObject({ state: 'open', returns: 1 });
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
    const { id } = await environmentOf('Reedling Puppet Theatre', 'Live');
    expect((await finding(id, 'sharing.favicon')).fix!.state).toBe('open');
    await turn('puppets', 'live', 'no-icon', false);
    await auditAgain(id);
    expect((await finding(id, 'sharing.favicon')).fix!.state).toBe('gone');
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
    const { id } = await environmentOf('Sallow Ferries', 'Live');
    const fix = (await finding(id, 'domain.preferred-host')).fix!.id;
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
    const waiting = await finding(id, 'domain.preferred-host');
    expect(waiting.accepted).toBeUndefined();
    expect((await mara('POST', `/api/acceptances/${waiting.acceptance!.id}/second`)).status).toBe(409);
    expect((await joss('POST', `/api/acceptances/${waiting.acceptance!.id}/second`)).status).toBe(200);
    expect(await finding(id, 'domain.preferred-host')).toMatchObject({
      accepted: true,
      fix: { state: 'accepted' },
    });
    expect((await mara('POST', `/api/fixes/${fix}/withdraw`)).status).toBe(200);
    expect((await finding(id, 'domain.preferred-host')).fix!.state).toBe('open');
  });
  it('attesting decides a manual check at once', async () => {
    const { id } = await environmentOf('Lifeboat Loft', 'Staging');
    expect((await finding(id, 'delivery.client-approval')).outcome).toBe('untested');
    expect(
      (await mara('POST', `/api/environments/${id}/attest`, { check: 'https.hsts', done: true })).status,
    ).toBe(400);
    await mara('POST', `/api/environments/${id}/attest`, {
      check: 'delivery.client-approval',
      done: true,
      note: 'letter of Monday',
    });
    expect(await finding(id, 'delivery.client-approval')).toMatchObject({
      outcome: 'passed',
      found: expect.stringContaining('Mara Quill') as string,
    });
    await mara('POST', `/api/environments/${id}/attest`, { check: 'delivery.client-approval', done: false });
    expect(await finding(id, 'delivery.client-approval')).toMatchObject({
      outcome: 'failed',
      fix: { state: 'open' },
    });
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
    const { id } = await environment('Saltmarsh Seed Library');
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
      link: expect.stringContaining(`environment=${id}&check=${fault.check}`) as string,
    });
    const again = await finding(id, fault.check);
    expect(again.accepted ?? false).toBe(false);
    expect(again.fix!.state).toBe('open');
    expect((await history(id))[0]).toMatchObject({
      cause: 'time',
      reasons: expect.arrayContaining(['something ended']) as string[],
    });
    await mara('POST', '/api/messages', { upTo: told[0]!.id });
    expect((await messages(mara)).every((m) => m.read)).toBe(true);
    expect((await messages(joss)).some((m) => m.link.includes(fault.check))).toBe(false);
  });
  it('an attestation that ends is untested again, and whoever vouched is told once', async () => {
    const { id } = await environment('Saltmarsh Seed Library');
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
