/** Pages over the routes, and intended texts: kept in versions, judged, noted when they are first seen. */
import { describe, expect, it } from 'vitest';
import type { PageDetail } from '#core/pages/page-detail';
import type { PagesAnswer } from '../../server/pages/page-bytes';
import { useDesk } from './desk';

const { mara, joss, site, environmentOf, turn, finding, history, auditAgain, sql } = useDesk('.test/pages');

interface Kept {
  path: string;
  title?: string;
  version: number;
  by: string;
  seenAt?: string;
}
const newest = async (environmentId: number): Promise<number> =>
  Number(
    (
      await sql<{ id: number }>('SELECT last_audit_id AS id FROM environment WHERE id = ?', [environmentId])
    )[0]!.id,
  );
const pagesOf = async (audit: number): Promise<PagesAnswer> =>
  (await mara<PagesAnswer>('GET', `/api/audits/${audit}/pages`)).body;
const textsOf = async (site: number, environment: number): Promise<Kept[]> =>
  (await mara<Kept[]>('GET', `/api/sites/${site}/texts?environment=${environment}`)).body;
const write = (site: number, ...texts: object[]) => mara('PUT', `/api/sites/${site}/texts`, { texts });

describe('pages of an audit', () => {
  it('are made once for each verdict, and counted by what fails there', async () => {
    const { id } = await environmentOf('Sallow Ferries', 'Live');
    const audit = await newest(id);
    const { pages, rooms } = await pagesOf(audit);
    expect(rooms.title).toMatchObject({ width: 560 });
    const made = await sql('SELECT verdict_id FROM audit_pages WHERE audit_id = ?', [audit]);
    expect(await pagesOf(audit)).toEqual(await pagesOf(audit));
    expect(await sql('SELECT verdict_id FROM audit_pages WHERE audit_id = ?', [audit])).toEqual(made);
    const heading = await finding(id, 'metadata.one-main-heading');
    const failing = heading.places.filter((p) => p.outcome === 'failed').map((p) => p.place);
    expect(failing.length).toBeGreaterThan(0);
    for (const url of failing) expect(pages.find((p) => p.url === url)!.faults).toBeGreaterThan(0);
  });

  it('an older audit keeps the pages that it saw', async () => {
    const { id } = await environmentOf('Tide Mill Bakery', 'Live');
    const before = await newest(id);
    await turn('bakery', 'live', 'no-title', true);
    await auditAgain(id);
    await turn('bakery', 'live', 'no-title', false);
    const missing = async (audit: number): Promise<number> =>
      (await pagesOf(audit)).pages.filter((p) => p.status === 200 && p.title.fit === 'missing').length;
    expect(await missing(before)).toBe(0);
    expect(await missing(await newest(id))).toBe(1);
    const { url } = (await pagesOf(await newest(id))).pages.find((p) => p.title.fit === 'missing')!;
    const { body } = await mara<PageDetail>(
      'GET',
      `/api/audits/${await newest(id)}/pages/one?url=${encodeURIComponent(url)}`,
    );
    expect(body.changes!.map((c) => c.what)).toContain('title');
    expect(body.findings.map((f) => f.check)).toContain('metadata.title-present');
    await auditAgain(id);
  });

  it.each([
    ['an audit that is none', '/api/audits/999999/pages', 404],
    ['a page that was not seen', '/api/audits/1/pages/one?url=https%3A%2F%2Fnowhere.example%2F', 404],
    ['no page named', '/api/audits/1/pages/one', 400],
  ])('says so for %s', async (_, path, status) => {
    expect((await mara('GET', path)).status).toBe(status);
  });

  it('come unpacked to whoever takes no brotli', async () => {
    const plain = await mara<PagesAnswer>('GET', '/api/audits/1/pages', undefined, {
      'accept-encoding': 'identity',
    });
    expect(plain.headers.get('content-encoding')).toBeNull();
    const packed = await mara<PagesAnswer>('GET', '/api/audits/1/pages', undefined, {
      'accept-encoding': 'br',
    });
    expect(packed.headers.get('content-encoding')).toBe('br');
    expect(plain.body).toEqual(packed.body);
    expect(plain.body.pages.length).toBeGreaterThan(0);
  });
});

describe('intended texts', () => {
  it('are judged at once, noted when first seen, and told apart once somebody changes the page', async () => {
    const { id } = await environmentOf('Quay Chess Circle', 'Live');
    const { id: siteId } = await site('Quay Chess Circle');
    await auditAgain(id);
    const { pages } = await pagesOf(await newest(id));
    const page = pages.find((p) => new URL(p.url).pathname !== '/' && p.title.fit === 'fits')!;
    const path = new URL(page.url).pathname;
    expect((await finding(id, 'metadata.as-intended')).outcome).toBe('inapplicable');
    await write(siteId, { path, title: page.title.text });
    expect((await finding(id, 'metadata.as-intended')).outcome).toBe('passed');
    expect((await history(id))[0]!.reasons).toContain('titles or descriptions written');
    // judged from what was seen before: an audit has to see it
    expect((await textsOf(siteId, id))[0]!.seenAt).toBeUndefined();
    await auditAgain(id);
    expect((await textsOf(siteId, id))[0]!.seenAt).toBeTruthy();
    await write(siteId, { path, title: 'Another title for this page' });
    expect((await finding(id, 'metadata.as-intended')).places[0]).toMatchObject({
      outcome: 'failed',
      found: `not yet: title “${page.title.text}”`,
    });
    expect((await textsOf(siteId, id))[0]).toMatchObject({ version: 2, by: 'Mara Quill' });
    const typed = await mara('POST', '/api/practice-texts', { environmentId: id, paths: [path] });
    expect(typed.status).toBe(200);
    await auditAgain(id);
    expect((await finding(id, 'metadata.as-intended')).outcome).toBe('passed');
    const { body } = await mara<Kept[]>(
      'GET',
      `/api/sites/${siteId}/texts/versions?path=${encodeURIComponent(path)}`,
    );
    expect(body.map((v) => v.version)).toEqual([2, 1]);
    await write(siteId, { path, title: '' });
    expect((await finding(id, 'metadata.as-intended')).outcome).toBe('inapplicable');
  });

  it('what was seen on staging was not yet seen on the live site', async () => {
    const { id: siteId } = await site('Tarn Planetarium');
    const staging = await environmentOf('Tarn Planetarium', 'Staging');
    const live = await environmentOf('Tarn Planetarium', 'Live');
    const path = '/contact/';
    await write(siteId, { path, title: 'Write to the planetarium – Tarn Planetarium' });
    await mara('POST', '/api/practice-texts', { environmentId: staging.id, paths: [path] });
    await auditAgain(staging.id);
    await auditAgain(live.id);
    expect((await textsOf(siteId, staging.id))[0]!.seenAt).toBeTruthy();
    expect((await textsOf(siteId, live.id))[0]!.seenAt).toBeUndefined();
    const found = (await finding(live.id, 'metadata.as-intended')).places[0] as { found?: string };
    expect(found.found).toMatch(/^not yet: /);
    await write(siteId, { path, title: '' });
  });

  it('two who write at once: the later one is told, and nothing is lost', async () => {
    const { id: siteId } = await site('Ebb Wool Mill');
    const { id } = await environmentOf('Ebb Wool Mill', 'Staging');
    const texts = (title: string) => ({ texts: [{ path: '/', title, from: 0 }] });
    expect((await mara('PUT', `/api/sites/${siteId}/texts`, texts('First'))).status).toBe(200);
    const late = await joss<{ message: string }>('PUT', `/api/sites/${siteId}/texts`, texts('Second'));
    expect(late.status).toBe(409);
    expect(late.body.message).toMatch(/Mara Quill changed the text of \//);
    expect((await textsOf(siteId, id))[0]).toMatchObject({ title: 'First', version: 1 });
    await write(siteId, { path: '/', title: '' });
  });

  it.each([
    ['a path that is none', [{ path: 'songs', title: 'A' }]],
    ['a title without end', [{ path: '/', title: 'x'.repeat(501) }]],
    ['nothing', []],
    ['no list', 'x'],
  ])('refuses %s', async (_, texts) => {
    expect((await mara('PUT', '/api/sites/1/texts', { texts })).status).toBe(400);
  });

  it('one page twice is a conflict, and a site that is gone is not found', async () => {
    const twice = [
      { path: '/a', title: 'A' },
      { path: '/a', title: 'B' },
    ];
    expect((await write(1, ...twice)).status).toBe(409);
    expect((await write(99_999, { path: '/', title: 'A' })).status).toBe(404);
  });
});
