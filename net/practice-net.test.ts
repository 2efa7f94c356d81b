import { strToU8, zipSync } from 'fflate';
import { imageSize } from 'image-size';
import { UploadedFiles } from './uploaded-files';
import { describe, expect, it } from 'vitest';
import { extractPage } from '#core/extract/html';
import { FAULTS } from './faults';
import { pagesOf, renderPage } from './pages';
import { ico, png } from './pictures';
import { SITES, WEB_ADDRESSES } from './sites';
import { FaultSwitches } from './switches';

describe('the sites of the practice net', () => {
  it('are twenty-four, of 6 to 60 pages and one of 2,000, under .example, at documentation addresses', () => {
    expect(SITES).toHaveLength(24);
    expect(SITES.map((s) => pagesOf(s).length).filter((n) => n > 60)).toEqual([2000]);
    expect(SITES.filter((s) => s.drafts.length).length).toBeGreaterThan(2);
    expect(SITES.filter((s) => s.replaces).length).toBeGreaterThan(4);
    for (const s of SITES) {
      expect(pagesOf(s).length).toBeGreaterThanOrEqual(6);
      expect(s.domain).toMatch(/\.example$/);
      expect(s.staging.host).toMatch(/\.example$/);
      expect(s.phone).toMatch(/^\+44 1632 960\d{3}$/);
    }
    for (const a of WEB_ADDRESSES) expect(a).toMatch(/^(192\.0\.2|198\.51\.100|203\.0\.113)\./);
    expect(SITES.some((s) => s.staging.path !== '/')).toBe(true);
  });
  it('plant only faults that exist, and all of them are different', () => {
    expect(new Set(FAULTS.map((f) => f.id)).size).toBe(FAULTS.length);
    for (const s of SITES)
      for (const f of [...s.live, ...s.before])
        expect(
          FAULTS.map((x) => x.id),
          `${s.slug} ${f}`,
        ).toContain(f);
    const switches = new FaultSwitches();
    expect(switches.isOn('puppets', 'live', 'no-icon')).toBe(true);
    expect(() => switches.set('puppets', 'live', 'nonsense', true)).toThrow(RangeError);
  });
  it('their pages are whole: one title, one heading, a description, links to all others', () => {
    for (const site of SITES.filter((s) => s.slug !== 'curlew')) {
      const all = pagesOf(site);
      for (const p of all) {
        const f = extractPage(
          renderPage(p, all, {
            site,
            origin: `https://${site.domain}`,
            prefix: '/',
            environment: 'live',
            on: () => false,
            year: 2026,
            stagingOrigin: 'https://x.example/',
          }),
          `https://${site.domain}${p.path}`,
        );
        expect(f.titles).toHaveLength(1);
        expect(f.headings.filter((h) => h.level === 1)).toHaveLength(1);
        expect(f.anchors.length).toBeGreaterThan(4);
        expect(f.jsonLd[0]!.error).toBeUndefined();
      }
    }
  });
  it('draw pictures that another reader understands', () => {
    expect(imageSize(new Uint8Array(png(120, 63, '#336699')))).toMatchObject({
      width: 120,
      height: 63,
      type: 'png',
    });
    expect(imageSize(new Uint8Array(ico([16, 48], '#336699'))).images).toMatchObject([
      { width: 16 },
      { width: 48 },
    ]);
  });
  it.each([
    ['../up.png', /no name of a file/],
    ['a/../../up.png', /no name of a file/],
    ['/root.png', /no name of a file/],
    ['a\\b.png', /no name of a file/],
    ['c:up.png', /no name of a file/],
  ])('take no upload with a file called %s, and keep what was there', (name, fault) => {
    const files = new UploadedFiles();
    const zip = (entries: Record<string, Uint8Array>): Buffer => Buffer.from(zipSync(entries));
    const tags = strToU8('<link rel="icon" href="/a.png">');
    files.unpack('puppets', 'live', zip({ 'a.png': strToU8('a'), 'tags.html': tags }));
    expect(() => files.unpack('puppets', 'live', zip({ [name]: strToU8('b') }))).toThrow(fault);
    expect(files.get('puppets', 'live', '/a.png')).toMatchObject({ status: 200, body: Buffer.from('a') });
    expect(files.get('puppets', 'staging', '/a.png')).toBeUndefined();
    const html = '<link rel="icon" href="/old.ico"><link rel="stylesheet"><meta name="viewport">';
    expect(files.in(html, 'puppets', 'live')).toBe(
      '<link rel="stylesheet"><link rel="icon" href="/a.png"><meta name="viewport">',
    );
  });
});
