/** Comparing over the routes: two environments, their pictures, and a build. */
import { strToU8, zipSync } from 'fflate';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import type { BuildState } from '../../server/builds/builds';
import type { ComparedSides, SideLine } from '../../server/comparing/comparing';
import type { PicturePairs } from '../../server/comparing/picture-pairs';
import { useDesk } from './desk';

const { mara, environmentOf, turn, settled, finding, sql, auditAgain, history } = useDesk('.test/comparing');

const SITE = 'Saltmarsh Seed Library';
let live: number;
let staging: number;
let site: number;
beforeAll(async () => {
  live = (await environmentOf(SITE, 'Live')).id;
  staging = (await environmentOf(SITE, 'Staging')).id;
  const [row] = await sql<{ id: number }>('SELECT site_id AS id FROM environment WHERE id = ?', [live]);
  site = row!.id;
});

const sides = async (): Promise<SideLine[]> =>
  (await mara<SideLine[]>('GET', `/api/sites/${site}/compare/sides`)).body;
const newestOf = async (environment: number): Promise<number> =>
  (await sides()).find((s) => s.environmentId === environment)!.auditId;
const compare = async (first: number, second: number): Promise<ComparedSides> =>
  (await mara<ComparedSides>('GET', `/api/sites/${site}/compare?first=${first}&second=${second}`)).body;

describe('two environments', () => {
  it('say which pages differ and who is ahead', async () => {
    const found = await compare(await newestOf(staging), await newestOf(live));
    expect(found.ahead).toMatchObject({ side: 'first' });
    const about = found.pages.find((p) => p.path === '/about/')!;
    expect(about.differences).toEqual([
      { what: 'text', gone: [expect.stringMatching(/^Today a team of volunteers/) as string], added: [] },
    ]);
    // the foot of every page has an old year
    expect(found.common).toMatchObject([
      { what: 'text', kind: 'gone' },
      { what: 'text', kind: 'added' },
    ]);
    expect(found.setAside.map((s) => s.what)).toContain('hosts in addresses');
  });
  it('published again, only the year is left', async () => {
    await turn('seeds', 'live', 'publish-behind', false);
    await auditAgain(live);
    const found = await compare(await newestOf(staging), await newestOf(live));
    const gone = found.pages.flatMap((p) => p.differences.flatMap((d) => d.gone));
    expect(gone.filter((line) => !/© \d{4} Saltmarsh/.test(line))).toEqual([]);
    // and the live site before and after
    const [now, before] = (await sides()).filter((s) => s.environmentId === live);
    const own = await compare(before!.auditId, now!.auditId);
    expect(own.pages.filter((p) => p.kind === 'changed').map((p) => p.path)).toEqual(['/about/']);
    expect(own.ahead.side).toBe('second');
  });
  it('of another site, or of itself, are refused', async () => {
    const other = (await environmentOf('Tarn Planetarium', 'Live')).id;
    const [row] = await sql<{ id: number }>('SELECT last_audit_id AS id FROM environment WHERE id = ?', [
      other,
    ]);
    const id = await newestOf(live);
    const asked = (first: number, second: number) =>
      mara('GET', `/api/sites/${site}/compare?first=${first}&second=${second}`);
    expect((await asked(id, row!.id)).status).toBe(404);
    expect((await asked(id, id)).status).toBe(400);
    expect((await asked(0, id)).status).toBe(400);
  });
});

describe('pictures', () => {
  it('are paired by page and screen, measured, and laid over each other', async () => {
    for (const id of [live, staging])
      await mara('POST', '/api/audits', { environmentIds: [id], scope: { parts: ['rendered'] } });
    await settled();
    const [first, second] = [await newestOf(staging), await newestOf(live)];
    const query = `first=${first}&second=${second}`;
    const { body } = await mara<PicturePairs>('GET', `/api/sites/${site}/compare/pictures?${query}`);
    expect(body.missing).toBeNull();
    expect(body.pairs.map((p) => `${p.path} ${p.screen}`).sort()).toEqual(
      ['/', '/about/', '/contact/', '/visit/'].flatMap((p) => [`${p} desktop`, `${p} phone`]),
    );
    // the year at the foot differs, and little else
    for (const p of body.pairs) {
      expect(p.fault).toBeUndefined();
      expect(p.share!).toBeLessThan(0.01);
    }
    expect(body.pairs[0]!.share).toBeGreaterThan(0);
    const drawn = await mara<Uint8Array>(
      'GET',
      `/api/sites/${site}/compare/drawn?${query}&path=/about/&screen=phone`,
    );
    expect(await sharp(Buffer.from(drawn.body)).metadata()).toMatchObject({ format: 'webp', width: 780 });
  });
});

describe('a build', () => {
  const upload = (bytes: Buffer, name = 'build-41.zip') =>
    mara<{ message?: string; files?: number }>('POST', `/api/sites/${site}/build`, bytes, {
      'x-file-name': encodeURIComponent(name),
    });
  const state = async (): Promise<BuildState> =>
    (await mara<BuildState>('GET', `/api/sites/${site}/build`)).body;

  it.each<[string, () => Buffer, RegExp]>([
    ['no ZIP', () => Buffer.from('hello'), /cannot be read/],
    ['a ZIP without a file', () => Buffer.from(zipSync({})), /no file/],
    [
      'a path that leads out',
      () => Buffer.from(zipSync({ 'a.html': strToU8('x'), '../b.html': strToU8('x') })),
      /no path within a build/,
    ],
  ])('that is %s is refused with the reason, and nothing changes', async (_, bytes, message) => {
    const answer = await upload(bytes());
    expect([answer.status, answer.body.message]).toEqual([400, expect.stringMatching(message) as string]);
    expect((await state()).build).toBeNull();
  });

  it('is held against what the live site serves, file by file, and judged', async () => {
    const evidence = (
      await mara<{ pages: { url: string; sha256?: string }[] }>(
        'GET',
        `/api/audits/${await newestOf(live)}/evidence`,
      )
    ).body;
    expect(evidence.pages.length).toBeGreaterThan(5);
    const script = `/* menus */\n${Array.from({ length: 30 }, (_, i) => `function step${i}(n){return n+${i};}`).join('\n')}\n`;
    const zip = zipSync({
      'dist/app.js': strToU8(script),
      'dist/index.html': strToU8('<title>x</title><p>Other words.</p>'),
      'dist/old/page.html': strToU8('<p>x</p>'),
      'dist/_headers': strToU8('/*'),
    });
    expect((await upload(Buffer.from(zip))).body).toMatchObject({ files: 4 });
    const { build, compared } = await state();
    expect(build).toMatchObject({ name: 'build-41.zip', files: 4, by: 'Mara Quill' });
    expect(compared!.files.map((f) => [f.path, f.state])).toEqual([
      ['/app.js', 'same'],
      ['/index.html', 'differs'],
      ['/old/page.html', 'unknown'],
      ['/_headers', 'not served'],
    ]);
    expect(compared!.extra).toContain('/about/');
    expect(await finding(live, 'delivery.matches-build')).toMatchObject({ outcome: 'failed' });
    expect((await history(live))[0]!.reasons).toContain('another build to compare with');
  });

  it('known before an audit, what nothing leads to is asked for by its name', async () => {
    await auditAgain(live);
    const { files } = (await state()).compared!;
    expect(files.find((f) => f.path === '/old/page.html')).toMatchObject({
      state: 'missing',
      why: 'status 404',
    });
    const again = await finding(live, 'delivery.matches-build');
    expect(
      again.places
        .filter((p) => p.outcome === 'failed')
        .map((p) => p.place)
        .sort(),
    ).toEqual(['/index.html', '/old/page.html']);
  });

  it('forgotten, nothing is held against it any more', async () => {
    expect((await mara('DELETE', `/api/sites/${site}/build`, {})).status).toBe(200);
    expect((await state()).build).toBeNull();
    expect((await finding(live, 'delivery.matches-build')).outcome).toBe('inapplicable');
  });
});
