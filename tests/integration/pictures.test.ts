/** The picture workshop over the routes: what is taken and kept, and its archive on a practice site. */
import { unzipSync } from 'fflate';
import sharp from 'sharp';
import { beforeAll, describe, expect, it } from 'vitest';
import { USUAL_SETTINGS } from '#core/pictures/settings';
import { useDesk } from './desk';

const { mara, served, environmentOf, turn, auditAgain, finding, sql } = useDesk('.test/pictures');

const SITE = 'Reedling Puppet Theatre';
const LOGO = Buffer.from(
  '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 64"><circle cx="32" cy="32" r="30" fill="#6b1f3f"/><path d="M20 20h24v8H36v20h-8V28h-8z" fill="#f7f2e6"/></svg>',
);
let photograph: Buffer;
let at: { id: number; site: number };

beforeAll(async () => {
  photograph = await sharp({
    create: {
      width: 2000,
      height: 1500,
      channels: 3,
      background: '#000',
      noise: { type: 'gaussian', mean: 120, sigma: 30 },
    },
  })
    .jpeg()
    .toBuffer();
  const { id } = await environmentOf(SITE, 'Live');
  const [row] = await sql<{ site_id: number }>('SELECT site_id FROM environment WHERE id = ?', [id]);
  at = { id, site: Number(row!.site_id) };
});

const upload = (use: string, bytes: Buffer, name: string) =>
  mara<{ message?: string }>('POST', `/api/environments/${at.id}/pictures?use=${use}`, bytes, {
    'x-file-name': encodeURIComponent(name),
  });
interface Pictures {
  settings: typeof USUAL_SETTINGS;
  share?: { name: string; version: number; width: number };
  icon?: { name: string; version: number; vector: boolean };
}
const pictures = async (): Promise<Pictures> =>
  (await mara<Pictures>('GET', `/api/sites/${at.site}/pictures`)).body;

/** A plain drawing that no limit of its parts refuses, and that takes minutes: `n` makes each another file. */
const endless = (n: number): Buffer =>
  Buffer.from(
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${n} ${n}">${`<rect width="${n}" height="${n}" opacity=".5"/>`.repeat(49_000)}</svg>`,
  );

describe('a drawing that takes minutes to draw', () => {
  it('is refused in seconds; others sign in meanwhile, and the server says that it is well', async () => {
    const uploads = [64, 65].map((n) => upload('icon', endless(n), 'icon.svg'));
    const others = async (): Promise<[sign: number, health: number]> => {
      const health = await mara<object>('GET', '/api/health');
      const login = { email: 'joss@marram-studio.example', password: 'marram-demo' };
      const { status } = await served.caller('')('POST', '/api/sign-in', login);
      return [status, health.status];
    };
    let done = false;
    const all = Promise.all(uploads).finally(() => (done = true));
    let rounds = 0;
    while (!done) {
      expect(await others()).toEqual([200, 200]);
      rounds++;
    }
    for (const { status, body } of await all)
      expect([status, body.message]).toEqual([400, expect.stringMatching(/took too long/)]);
    // each round would have waited for them
    expect(rounds).toBeGreaterThan(3);
    // the same file is not tried again
    const [again, good] = await Promise.all([
      upload('icon', endless(64), 'icon.svg'),
      upload('icon', LOGO, 'logo.svg'),
    ]);
    expect([again.status, good.status]).toEqual([400, 200]);
  });
});

describe('what is taken', () => {
  it.each<[string, () => Buffer, number, RegExp]>([
    ['no picture', () => Buffer.from('hello'), 400, /cannot be read/],
    ['an SVG with a script', () => Buffer.from('<svg><script>1</script></svg>'), 400, /a script, line 1/],
    ['a picture cut short', () => photograph.subarray(0, 20), 400, /cannot be read/],
    ['more than 20 MB', () => Buffer.alloc(21 * 1024 * 1024), 413, /the most that is taken/],
  ])('%s is refused with the reason, and nothing changes', async (_, bytes, status, message) => {
    const before = await pictures();
    const answer = await upload('share', bytes(), 'a.png');
    expect([answer.status, answer.body.message]).toEqual([status, expect.stringMatching(message) as string]);
    expect(await pictures()).toEqual(before);
  });
  it('a picture takes the place of the one before, whose bytes go', async () => {
    expect((await upload('share', photograph, 'Bühne/../a.jpg')).status).toBe(200);
    const first = (await pictures()).share!;
    expect(first).toMatchObject({ name: 'Bühne..a.jpg', width: 2000 });
    expect((await upload('share', photograph, 'stage.jpg')).status).toBe(200);
    const { share } = await pictures();
    expect(share!.version).not.toBe(first.version);
    expect(await sql('SELECT id FROM file WHERE id = ?', [first.version])).toEqual([]);
  });
  it('settings are kept, and refused where they lead astray', async () => {
    const put = (settings: object) =>
      mara<{ message?: string }>('PUT', `/api/sites/${at.site}/pictures`, settings);
    const wanted = {
      ...USUAL_SETTINGS,
      share: { ...USUAL_SETTINGS.share, x: 0.25, alt: 'The stage of the puppet theatre, with two herons' },
    };
    expect((await put(wanted)).status).toBe(200);
    expect((await pictures()).settings).toEqual(wanted);
    for (const folder of ['/../', 'x', '/a/../b/', '/a b/'])
      expect((await put({ ...wanted, folder })).status).toBe(400);
    expect((await put({ ...wanted, share: { ...wanted.share, zoom: 99 } })).status).toBe(400);
    expect((await pictures()).settings).toEqual(wanted);
  });
  it('one that the audit found', async () => {
    const found = (
      await mara<{ url: string; roles: string[] }[]>('GET', `/api/environments/${at.id}/pictures`)
    ).body;
    const shared = found.find((f) => f.roles.includes('share-picture'))!;
    const answer = await mara('POST', `/api/environments/${at.id}/pictures/found`, {
      use: 'icon',
      url: shared.url,
    });
    expect(answer.status).toBe(200);
    expect((await pictures()).icon).toMatchObject({ name: 'share.png' });
    const lost = await mara<{ message: string }>('POST', `/api/environments/${at.id}/pictures/found`, {
      use: 'icon',
      url: new URL('/nothing.png', shared.url).href,
    });
    expect([lost.status, lost.body.message]).toEqual([502, expect.stringMatching(/status 404/) as string]);
  });
  it('addresses that nobody may dial are not fetched for anybody', async () => {
    for (const url of ['http://127.0.0.1:3306/', 'http://169.254.169.254/latest', 'http://[::1]/']) {
      const small = await mara(
        'GET',
        `/api/environments/${at.id}/pictures/small?width=96&url=${encodeURIComponent(url)}`,
      );
      expect(small.status, url).toBe(502);
    }
  });
});

describe('the archive on a practice site', () => {
  const CHECKS = [
    'sharing.favicon',
    'sharing.touch-icon',
    'sharing.icon-sharp',
    'sharing.icon-sizes-true',
    'sharing.icon-own',
    'sharing.manifest',
    'sharing.image-size',
    'sharing.image-weight',
    'sharing.image-loads',
    'sharing.image-description',
    'sharing.card',
    'sharing.preview-complete',
  ];
  const outcomes = async (): Promise<Record<string, string>> =>
    Object.fromEntries(
      await Promise.all(CHECKS.map(async (check) => [check, (await finding(at.id, check)).outcome] as const)),
    );
  it('makes the checks of icons and sharing pass', async () => {
    for (const fault of [
      'no-icon',
      'no-touch-icon',
      'picture-small',
      'picture-mute',
      'no-card',
      'manifest-broken',
    ])
      await turn('puppets', 'live', fault, true);
    await auditAgain(at.id);
    const before = await outcomes();
    for (const check of [
      'sharing.favicon',
      'sharing.touch-icon',
      'sharing.image-size',
      'sharing.card',
      'sharing.manifest',
    ])
      expect(before[check], check).toBe('failed');
    expect((await upload('icon', LOGO, 'logo.svg')).status).toBe(200);
    expect((await upload('share', photograph, 'stage.jpg')).status).toBe(200);
    expect((await mara('POST', '/api/practice-pictures', { environmentId: at.id })).status).toBe(200);
    await auditAgain(at.id);
    expect(await outcomes()).toEqual(Object.fromEntries(CHECKS.map((check) => [check, 'passed'])));
  });
  it('is the same that is downloaded', async () => {
    const { body } = await mara<Uint8Array>('GET', `/api/sites/${at.site}/pictures/kit?environment=${at.id}`);
    const files = unzipSync(body);
    expect(Object.keys(files)).toEqual(
      expect.arrayContaining(['favicon.ico', 'icon-512.png', 'site.webmanifest', 'tags.html', 'icon.svg']),
    );
  });
});
