/** Builds in archives: what is one, and what is not taken for one. */
import { createHash } from 'node:crypto';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { siteBuild, zippedFiles } from './build-files';

const zip = (entries: Record<string, string>): Uint8Array =>
  zipSync(Object.fromEntries(Object.entries(entries).map(([name, text]) => [name, strToU8(text)])));
const file = (path: string, text: string) => ({ path, bytes: strToU8(text) });

describe('a build', () => {
  it('is its paths, sizes and digests, with what its pages say', () => {
    const html = '<title>x</title><p>Open at ten.</p><script>1</script>';
    const { files } = siteBuild('41', zippedFiles(zip({ 'index.html': html, 'a/app.js': 'x' })));
    expect(files).toEqual([
      {
        path: 'index.html',
        bytes: html.length,
        sha256: createHash('sha256').update(html).digest('hex'),
        text: 'Open at ten.',
        face: expect.objectContaining({ title: ['x'], text: ['Open at ten.'], headings: [] }) as object,
      },
      { path: 'a/app.js', bytes: 1, sha256: createHash('sha256').update('x').digest('hex') },
    ]);
  });
  it('in one folder is what that folder holds, without what systems leave there', () => {
    const found = siteBuild('x', [
      file('dist/index.html', ''),
      file('dist/a.css', ''),
      file('dist/.DS_Store', ''),
      file('__MACOSX/dist/._a', ''),
    ]);
    expect(found.files.map((f) => f.path)).toEqual(['index.html', 'a.css']);
  });
  it('may have names in any script', () => {
    const names = ['über/größe.png', '写真/富士.png', 'צילום.png', 'a b%20c.png'];
    expect(
      siteBuild(
        'x',
        names.map((n) => file(n, 'x')),
      ).files.map((f) => f.path),
    ).toEqual(names);
  });
  it.each(['../up.html', 'a/../../up', '/root.html', 'a\\b.html', 'c:x.html', 'x\0y', 'a'.repeat(1001)])(
    '%j is no path within one',
    (path) => {
      expect(() => siteBuild('x', [file('index.html', ''), file(path, '')])).toThrow(
        /no path within a build/,
      );
    },
  );
  it('has a file, and not too many', () => {
    expect(() => siteBuild('x', [])).toThrow(/no file/);
    const many = Array.from({ length: 20_001 }, (_, i) => file(`f${i}`, ''));
    expect(() => siteBuild('x', many)).toThrow(/at most 20,000 files/);
  });
});

describe('a ZIP', () => {
  it('that is none is told', () => {
    expect(() => zippedFiles(strToU8('hello'))).toThrow(/cannot be read/);
    expect(() => zippedFiles(zip({ 'a.txt': 'hello hello hello' }).subarray(0, 40))).toThrow(
      /cannot be read/,
    );
  });
  it('of 100,000 files is refused before they are unpacked', () => {
    const entries: Record<string, Uint8Array> = {};
    for (let i = 0; i < 100_000; i++) entries[`f${i}`] = new Uint8Array(0);
    const packed = zipSync(entries, { level: 0 });
    expect(() => zippedFiles(packed)).toThrow(/at most 20,000 files/);
  });
  it('that unpacks to more than a build may be is refused before it is unpacked', () => {
    // a bomb: the same megabytes of nothing, named often
    const bomb = zip({ a: '\0'.repeat(30_000_000) });
    const size = new DataView(bomb.buffer, bomb.byteOffset);
    const central = Buffer.from(bomb).indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
    size.setUint32(central + 24, 600 * 1024 * 1024, true);
    expect(() => zippedFiles(bomb)).toThrow(/unpacks to more than 500 MB/);
  });
});
