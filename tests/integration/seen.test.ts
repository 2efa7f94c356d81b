/** What a browser saw, over the routes: looked at where somebody asks, kept with its pictures, judged, and let go. */
import { imageSize } from 'image-size';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import type { SeenPages } from '../../server/audits/seen';
import { useDesk } from './desk';

const { mara, environmentOf, turn, settled, finding, sql, auditAgain } = useDesk('.test/seen');

const SITE = 'Pedal Kitchen';
let at: number;
beforeAll(async () => {
  at = (await environmentOf(SITE, 'Live')).id;
});

const look = async (scope: object): Promise<void> => {
  const { body } = await mara<{ started: unknown[] }>('POST', '/api/audits', { environmentIds: [at], scope });
  expect(body.started).toHaveLength(1);
  await settled();
};
const newest = async (): Promise<number> => {
  const [row] = await sql<{ id: number }>('SELECT last_audit_id AS id FROM environment WHERE id = ?', [at]);
  return row!.id;
};
const seen = async (): Promise<SeenPages> =>
  (await mara<SeenPages>('GET', `/api/audits/${await newest()}/seen`)).body;
const pictureOf = async (sha256: string) =>
  mara<Buffer>('GET', `/api/audits/${await newest()}/seen/picture?sha256=${sha256}`);
const files = async (): Promise<number> => {
  const [row] = await sql<{ n: bigint }>(
    "SELECT COUNT(*) AS n FROM file WHERE environment_id = ? AND site_id IS NULL AND type = 'image/webp'",
    [at],
  );
  return Number(row!.n);
};

describe('pages in a browser', () => {
  it('before anybody asks, nothing is passed off as seen', async () => {
    await auditAgain(at);
    expect(await seen()).toMatchObject({ missing: 'no browser has looked at its pages yet', pages: [] });
    expect(await finding(at, 'delivery.script-errors')).toMatchObject({
      outcome: 'cantTell',
      reason: 'not rendered: no browser has looked at its pages yet',
    });
  });

  it('are looked at by themselves, on both screens, and judged; all else stays as it was', async () => {
    const title = await finding(at, 'metadata.title-present');
    await look({ parts: ['rendered'] });
    const { missing, pages } = await seen();
    expect(missing).toBeNull();
    expect(pages.map((p) => new URL(p.url).pathname)).toEqual(['/', '/about/', '/contact/', '/visit/']);
    for (const { views } of pages) {
      expect(views.map((v) => [v.screen, v.failure])).toEqual([
        ['desktop', undefined],
        ['phone', undefined],
      ]);
      expect(views.every((v) => v.first && v.firstPaintMs !== undefined && v.loads.length)).toBe(true);
    }
    expect(await finding(at, 'delivery.script-errors')).toMatchObject({
      outcome: 'failed',
      found: '1 of 4 pages: openMenu is not defined',
    });
    expect((await finding(at, 'verification.hits-seen')).outcome).toBe('failed');
    expect(await finding(at, 'metadata.title-present')).toMatchObject({ outcome: title.outcome });
  });

  it('their pictures are WebP of their screens’ sizes, by a second reader, and nobody else’s', async () => {
    const { pages } = await seen();
    const [desktop, phone] = pages[0]!.views;
    for (const [picture, width, height] of [
      [desktop!.first!, 1280, 800],
      [phone!.first!, 780, 1688],
    ] as const) {
      const { status, body } = await pictureOf(picture.sha256);
      expect(status).toBe(200);
      expect(await sharp(Buffer.from(body)).metadata()).toMatchObject({ format: 'webp', width, height });
      // sharp wrote it; this one had no part in it
      expect(imageSize(new Uint8Array(body))).toMatchObject({ type: 'webp', width, height });
    }
    expect((await pictureOf('0'.repeat(64))).status).toBe(404);
    expect((await pictureOf('x')).status).toBe(400);
  });

  it('looked at again unchanged, no picture is kept twice; mended, the fault is gone', async () => {
    const before = await files();
    await turn('pedals', 'live', 'script-error', false);
    await look({ checks: ['delivery.script-errors'] });
    expect((await finding(at, 'delivery.script-errors')).outcome).toBe('passed');
    expect(await files()).toBe(before);
  });

  it('of more than five audits the pictures of the oldest go', async () => {
    for (let n = 0; n < 5; n++) await look({ parts: ['files'] });
    const kept = await sql<{ id: number }>(
      'SELECT DISTINCT audit_id AS id FROM seen_picture s JOIN audit a ON a.id = s.audit_id WHERE a.environment_id = ?',
      [at],
    );
    expect(kept).toHaveLength(5);
    expect((await seen()).pages[0]!.views[0]!.first).toBeDefined();
  });

  it('a check that a browser could not decide is decided by a person, and only such a one', async () => {
    await turn('pedals', 'live', 'counted-double', false);
    await mara('POST', '/api/audits', { environmentIds: [at] });
    await settled();
    expect(await finding(at, 'verification.hits-seen')).toMatchObject({
      outcome: 'cantTell',
      attestable: true,
    });
    const said = (check: string) =>
      mara('POST', `/api/environments/${at}/attest`, { check, done: true, note: 'seen in the live view' });
    expect((await said('verification.hits-seen')).status).toBe(200);
    expect((await finding(at, 'verification.hits-seen')).outcome).toBe('passed');
    expect((await said('delivery.script-errors')).status).toBe(400);
  });
});
