/** Robots files, sitemaps and pictures that mean harm, seen through a whole audit. */
import type http from 'node:http';
import zlib from 'node:zlib';
import { afterEach, describe, expect, it } from 'vitest';
import type { Evidence } from '#core/facts/evidence';
import { collect } from '#probe/collect';
import { LocalServers } from '../local-servers';

const servers = new LocalServers();
afterEach(() => servers.close());

const home = (head = '', body = '') =>
  `<!doctype html><html lang="en"><head><title>Here</title>${head}</head><body><p>Words enough for a page.</p>${body}</body></html>`;
type Files = Record<string, { type: string; body: string | Buffer; encoding?: string }>;

async function auditWith(
  make: (origin: string) => Files,
  head = '',
  kind: 'before' | 'live' = 'before',
): Promise<Evidence> {
  let files: Files = {};
  const url = await servers.http((req: http.IncomingMessage, res) => {
    const file = files[req.url!];
    if (req.url === '/') {
      res.setHeader('content-type', 'text/html');
      res.end(home(head));
      return;
    }
    if (!file) {
      res.statusCode = 404;
      res.end();
      return;
    }
    res.setHeader('content-type', file.type);
    if (file.encoding) res.setHeader('content-encoding', file.encoding);
    res.end(file.body);
  });
  files = make(url);
  const started = performance.now();
  const e = await collect({
    url,
    kind,
    allowPrivate: true,
    resolvers: ['127.0.0.1:9'],
    timeoutMs: 15_000,
    retryPauseMs: 5,
    maxBytes: 1_000_000,
  });
  expect(performance.now() - started).toBeLessThan(60_000);
  expect(e.pages[0]!.facts?.titles[0]?.text).toBe('Here');
  return e;
}
const map = (inner: string) =>
  `<?xml version="1.0"?><urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">${inner}</urlset>`;

describe('a robots.txt that', () => {
  it('is empty allows all', async () => {
    const e = await auditWith(() => ({ '/robots.txt': { type: 'text/plain', body: '' } }));
    expect(e.robots.facts?.groups).toEqual([]);
  });
  it('is enormous is read up to the limit', async () => {
    const e = await auditWith(() => ({
      '/robots.txt': {
        type: 'text/plain',
        body: `User-agent: *\nDisallow: /a\n${'# filler\n'.repeat(90_000)}Disallow: /late\n`,
      },
    }));
    expect(JSON.stringify(e.robots.facts)).not.toContain('/late');
    expect(e.robots.text!.length).toBeLessThanOrEqual(20_000);
  });
  it('has a hundred thousand groups', async () => {
    const e = await auditWith(() => ({
      '/robots.txt': {
        type: 'text/plain',
        body: Array.from({ length: 30_000 }, (_, i) => `User-agent: b${i}\nDisallow: /\n`).join(''),
      },
    }));
    expect(e.robots.chain.end).toBe('answer');
  });
  it('has rules of stars', async () => {
    const e = await auditWith(() => ({
      '/robots.txt': { type: 'text/plain', body: `User-agent: *\nDisallow: /${'*a'.repeat(500)}b$\n` },
    }));
    expect(e.robots.facts?.groups).toHaveLength(1);
  });
  it('is a page', async () => {
    const e = await auditWith(() => ({ '/robots.txt': { type: 'text/html', body: home() } }));
    expect(e.robots.facts).toBeUndefined();
  });
  it('is bytes', async () => {
    const e = await auditWith(() => ({
      '/robots.txt': {
        type: 'text/plain',
        body: Buffer.from(Array.from({ length: 3000 }, (_, i) => (i * 31) % 256)),
      },
    }));
    expect(e.robots.chain.end).toBe('answer');
  });
  it('names a thousand sitemaps elsewhere', async () => {
    const e = await auditWith(() => ({
      '/robots.txt': {
        type: 'text/plain',
        body: Array.from({ length: 1000 }, (_, i) => `Sitemap: http://10.0.0.${i % 250}/s${i}.xml`).join(
          '\n',
        ),
      },
    }));
    expect(e.sitemaps.length).toBeLessThanOrEqual(200);
  });
});

describe('a sitemap that', () => {
  it('expands entities', async () => {
    const bomb = `<?xml version="1.0"?><!DOCTYPE u [<!ENTITY a "aaaaaaaaaa">${Array.from({ length: 9 }, (_, i) => `<!ENTITY ${'bcdefghij'[i]} "${`&${'abcdefghi'[i]};`.repeat(10)}">`).join('')}]><urlset><url><loc>http://x.example/&j;</loc></url></urlset>`;
    const e = await auditWith(() => ({ '/sitemap.xml': { type: 'application/xml', body: bomb } }));
    expect(e.sitemaps[0]!.facts?.error).toBeTruthy();
    expect(JSON.stringify(e.sitemaps).length).toBeLessThan(20_000);
  });
  it('reads a file of ours', async () => {
    const e = await auditWith(() => ({
      '/sitemap.xml': {
        type: 'application/xml',
        body: '<?xml version="1.0"?><!DOCTYPE u [<!ENTITY x SYSTEM "file:///etc/passwd">]><urlset><url><loc>&x;</loc></url></urlset>',
      },
    }));
    expect(JSON.stringify(e)).not.toContain('root:');
  });
  it('indexes itself', async () => {
    const e = await auditWith((o) => ({
      '/sitemap.xml': {
        type: 'application/xml',
        body: `<sitemapindex><sitemap><loc>${o}sitemap.xml</loc></sitemap><sitemap><loc>${o}b.xml</loc></sitemap></sitemapindex>`,
      },
      '/b.xml': {
        type: 'application/xml',
        body: `<sitemapindex><sitemap><loc>${o}sitemap.xml</loc></sitemap></sitemapindex>`,
      },
    }));
    expect(e.sitemaps).toHaveLength(2);
  });
  it('indexes ever more', async () => {
    const e = await auditWith((o) => {
      const files: Files = {};
      for (let i = 0; i < 400; i++)
        files[i ? `/s${i}.xml` : '/sitemap.xml'] = {
          type: 'application/xml',
          body: `<sitemapindex><sitemap><loc>${o}s${i + 1}.xml</loc></sitemap></sitemapindex>`,
        };
      return files;
    });
    expect(e.sitemaps.length).toBeLessThanOrEqual(200);
  });
  it('is a gzip bomb', async () => {
    const e = await auditWith((o) => ({
      '/robots.txt': { type: 'text/plain', body: `Sitemap: ${o}s.xml.gz` },
      '/s.xml.gz': { type: 'application/gzip', body: zlib.gzipSync(Buffer.alloc(80_000_000), { level: 1 }) },
    }));
    expect(e.sitemaps[0]!.facts?.error).toContain('limit');
  });
  it('is packed and good', async () => {
    const e = await auditWith((o) => ({
      '/robots.txt': { type: 'text/plain', body: `Sitemap: ${o}s.xml.gz` },
      '/s.xml.gz': { type: 'application/gzip', body: zlib.gzipSync(map(`<url><loc>${o}</loc></url>`)) },
    }));
    expect(e.sitemaps[0]!.facts).toMatchObject({ kind: 'urlset', count: 1 });
  });
  it('is a plain list', async () => {
    const e = await auditWith((o) => ({
      '/robots.txt': { type: 'text/plain', body: `Sitemap: ${o}s.txt` },
      '/s.txt': { type: 'text/plain', body: `${o}\n${o}a\n` },
    }));
    expect(e.sitemaps[0]!.facts).toMatchObject({ kind: 'text', count: 2 });
  });
  it('breaks off in the middle', async () => {
    const e = await auditWith((o) => ({
      '/sitemap.xml': {
        type: 'application/xml',
        body: map(`<url><loc>${o}</loc></url><url><lo`).slice(0, -9),
      },
    }));
    expect(e.sitemaps[0]!.facts).toMatchObject({ count: 1, error: expect.any(String) as string });
  });
  it('is empty', async () => {
    const e = await auditWith(() => ({ '/sitemap.xml': { type: 'application/xml', body: '' } }));
    expect(e.sitemaps[0]!.facts?.error).toBeTruthy();
  });
  it('names addresses of a megabyte', async () => {
    const e = await auditWith((o) => ({
      '/sitemap.xml': {
        type: 'application/xml',
        body: map(`<url><loc>${o}${'a'.repeat(1_000_000)}</loc></url>`),
      },
    }));
    expect(JSON.stringify(e.sitemaps).length).toBeLessThan(20_000);
  });
  it('nests without end', async () => {
    const e = await auditWith(() => ({
      '/sitemap.xml': { type: 'application/xml', body: '<urlset>'.repeat(50_000) },
    }));
    expect(e.sitemaps[0]!.facts?.error).toBeTruthy();
  });
});

/** A PNG's first bytes with a size of one's own. */
function pngHead(width: number, height: number): Buffer {
  const b = Buffer.alloc(33);
  b.write('\x89PNG\r\n\x1a\n', 0, 'latin1');
  b.writeUInt32BE(13, 8);
  b.write('IHDR', 12);
  b.writeUInt32BE(width, 16);
  b.writeUInt32BE(height, 20);
  b[24] = 8;
  b[25] = 6;
  return b;
}
const icon = async (body: string | Buffer, type = 'image/png') =>
  (await auditWith(() => ({ '/icon': { type, body } }), '<link rel="icon" href="/icon">')).assets.find((a) =>
    a.roles.includes('icon'),
  )!;

describe('a picture that', () => {
  it('claims 30,000 by 30,000 pixels costs nothing', async () => {
    expect((await icon(pngHead(30_000, 30_000))).image).toMatchObject({ width: 30_000, height: 30_000 });
  });
  it('claims four thousand million', async () => {
    const a = await icon(pngHead(0xffffffff, 0xffffffff));
    expect(a.image ?? a.imageError).toBeTruthy();
  });
  it('is a PNG cut short', async () => {
    expect((await icon(pngHead(32, 32).subarray(0, 18))).imageError).toBeTruthy();
  });
  it('is an ICO cut short', async () => {
    const b = Buffer.alloc(10);
    b.writeUInt16LE(1, 2);
    b.writeUInt16LE(5, 4);
    expect((await icon(b, 'image/x-icon')).imageError).toBeTruthy();
  });
  it('is an ICO of 65,535 pictures', async () => {
    const b = Buffer.alloc(22);
    b.writeUInt16LE(1, 2);
    b.writeUInt16LE(65_535, 4);
    const a = await icon(b, 'image/x-icon');
    expect(a.imageError ?? a.image?.sizes?.length).toBeTruthy();
  });
  it('is a JPEG of markers only', async () => {
    const a = await icon(
      Buffer.concat([Buffer.from([0xff, 0xd8]), Buffer.alloc(200_000, 0xff)]),
      'image/jpeg',
    );
    expect(a.imageError ?? a.image).toBeTruthy();
  });
  it('is a GIF of six bytes', async () => {
    expect((await icon('GIF89a', 'image/gif')).imageError).toBeTruthy();
  });
  it('is an SVG of entities', async () => {
    const a = await icon(
      `<!DOCTYPE s [<!ENTITY a "${'x'.repeat(1000)}">]><svg xmlns="http://www.w3.org/2000/svg" width="&a;">${'&a;'.repeat(1000)}</svg>`,
      'image/svg+xml',
    );
    expect(a.imageError ?? a.image).toBeTruthy();
  });
  it('is an SVG of a megabyte without an end', async () => {
    const a = await icon(`<svg ${'a="b" '.repeat(150_000)}`, 'image/svg+xml');
    expect(a.imageError ?? a.image).toBeTruthy();
  });
  it('is a page', async () => {
    expect((await icon(home(), 'text/html')).imageError).toBeTruthy();
  });
  it('is nothing', async () => {
    expect((await icon('')).imageError).toBeTruthy();
  });
  it('is a WebP, AVIF or HEIC that ends after its name', async () => {
    for (const head of ['RIFF\x10\0\0\0WEBPVP8X', '\0\0\0\x18ftypavif', '\0\0\0\x18ftypheic'])
      expect((await icon(Buffer.from(head, 'latin1'), 'image/webp')).imageError).toBeTruthy();
  });
});

describe('other files that mean harm', () => {
  it('a manifest of fifty thousand brackets', async () => {
    const e = await auditWith(
      () => ({ '/m': { type: 'application/manifest+json', body: '['.repeat(50_000) } }),
      '<link rel="manifest" href="/m">',
    );
    expect(e.manifest?.facts?.error).toBeTruthy();
  });
  it('a manifest with a thousand icons elsewhere', async () => {
    const e = await auditWith(
      () => ({
        '/m': {
          type: 'application/manifest+json',
          body: JSON.stringify({ icons: Array.from({ length: 1000 }, (_, i) => ({ src: `/i${i}.png` })) }),
        },
      }),
      '<link rel="manifest" href="/m">',
    );
    expect(e.assets.filter((a) => a.roles.includes('manifest-icon')).length).toBeLessThanOrEqual(50);
  });
  it('a style sheet of braces', async () => {
    const e = await auditWith(
      () => ({ '/s.css': { type: 'text/css', body: '{'.repeat(200_000) + '@font-face'.repeat(20_000) } }),
      '<link rel="stylesheet" href="/s.css">',
    );
    expect(e.assets.find((a) => a.roles.includes('style'))!.css).toBeDefined();
  });
  it('a style sheet that imports itself', async () => {
    const e = await auditWith(
      () => ({
        '/s.css': { type: 'text/css', body: '@import "/s.css"; @import url(/t.css);' },
        '/t.css': { type: 'text/css', body: '@import "/s.css";' },
      }),
      '<link rel="stylesheet" href="/s.css">',
    );
    expect(e.assets.filter((a) => a.roles.includes('style')).length).toBe(2);
  });
});
