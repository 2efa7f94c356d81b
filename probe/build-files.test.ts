/** Builds in archives: what is one, and what is not taken for one. */
import { createHash } from 'node:crypto';
import { strToU8, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { siteBuild, zippedFiles, type NamedFile } from './build-files';

const zip = (entries: Record<string, string>): Uint8Array =>
  zipSync(Object.fromEntries(Object.entries(entries).map(([name, text]) => [name, strToU8(text)])));
const file = (path: string, text: string): NamedFile => ({ path, read: () => of(strToU8(text)) });
/** A stream of one piece. */
async function* of(bytes: Uint8Array): AsyncIterable<Uint8Array> {
  yield bytes;
}

describe('a build', () => {
  it('is its paths, sizes and digests, with what its pages say', async () => {
    const html = '<title>x</title><p>Open at ten.</p><script>1</script>';
    const { files } = await siteBuild('41', await zippedFiles(zip({ 'index.html': html, 'a/app.js': 'x' })));
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
  it('in one folder is what that folder holds, without what systems leave there', async () => {
    const found = await siteBuild('x', [
      file('dist/index.html', ''),
      file('dist/a.css', ''),
      file('dist/.DS_Store', ''),
      file('__MACOSX/dist/._a', ''),
    ]);
    expect(found.files.map((f) => f.path)).toEqual(['index.html', 'a.css']);
  });
  it('may have names in any script', async () => {
    const names = ['über/größe.png', '写真/富士.png', 'צילום.png', 'a b%20c.png'];
    const { files } = await siteBuild(
      'x',
      names.map((n) => file(n, 'x')),
    );
    expect(files.map((f) => f.path)).toEqual(names);
  });
  it.each([
    '../up.html',
    'a/../../up',
    '/root.html',
    'a\\b.html',
    'c:x.html',
    'x\0y',
    'x\ny',
    'gpj.\u202Eexe.html',
    'a'.repeat(1001),
  ])('%j is no path within one', async (path) => {
    await expect(siteBuild('x', [file('index.html', ''), file(path, '')])).rejects.toThrow(
      /no path within a build/,
    );
  });
  it('has a file, and not too many', async () => {
    await expect(siteBuild('x', [])).rejects.toThrow(/no file/);
    const many = Array.from({ length: 20_001 }, (_, i) => file(`f${i}`, ''));
    await expect(siteBuild('x', many)).rejects.toThrow(/at most 20,000 files/);
  });
});

describe('a ZIP', () => {
  it('that is none is told', async () => {
    await expect(zippedFiles(strToU8('hello'))).rejects.toThrow(/cannot be read/);
    await expect(zippedFiles(zip({ 'a.txt': 'hello hello hello' }).subarray(0, 40))).rejects.toThrow(
      /cannot be read/,
    );
  });
  it('of 100,000 files is refused before they are unpacked', async () => {
    const entries: Record<string, Uint8Array> = {};
    for (let i = 0; i < 100_000; i++) entries[`f${i}`] = new Uint8Array(0);
    const packed = zipSync(entries, { level: 0 });
    await expect(zippedFiles(packed)).rejects.toThrow(/at most 20,000 files/);
  });
  it('that unpacks to more than a build may be is refused before it is unpacked', async () => {
    // a bomb: the same megabytes of nothing, named often
    const bomb = zip({ a: '\0'.repeat(30_000_000) });
    const size = new DataView(bomb.buffer, bomb.byteOffset);
    const central = Buffer.from(bomb).indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
    size.setUint32(central + 24, 600 * 1024 * 1024, true);
    await expect(zippedFiles(bomb)).rejects.toThrow(/unpacks to more than 500 MB/);
  });
  it.each(['../up.html', '/root.html', 'a\\b.html'])(
    'with the name %j is refused as one that leads out',
    async (name) => {
      const files = await zippedFiles(zip({ 'index.html': '', [name]: 'x' }));
      await expect(siteBuild('x', files)).rejects.toThrow(/no path within a build/);
    },
  );
  it('may name its files in any script', async () => {
    const files = await zippedFiles(zip({ 'über/größe.html': '', '写真.png': 'x' }));
    expect(files.map((f) => f.path)).toEqual(['über/größe.html', '写真.png']);
  });
  it('that unpacks to more than it says is refused while it is read', async () => {
    const bomb = Buffer.from(zip({ 'a.bin': '\0'.repeat(30_000_000) }));
    const central = bomb.indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
    bomb.writeUInt32LE(10, central + 24);
    await expect(siteBuild('x', await zippedFiles(bomb))).rejects.toThrow(/cannot be read: too many bytes/);
  });
  it('whose entries share one local header is refused before anything is read', async () => {
    const packed = stored('a.bin', Buffer.alloc(1_000_000, 1));
    await expect(zippedFiles(repeated(packed, 1500, 0))).rejects.toThrow(/size mismatch/);
    await expect(zippedFiles(repeated(packed, 1500, 1_000_000))).rejects.toThrow(/share the same bytes/);
  });
  it('whose stored entry says another size than it has is refused', async () => {
    const packed = stored('a.bin', Buffer.alloc(1000, 1));
    await expect(zippedFiles(repeated(packed, 1, 0))).rejects.toThrow(/cannot be read: .*size mismatch/);
  });
  it('is read one file after the other', async () => {
    const parts = Object.fromEntries(Array.from({ length: 20 }, (_, i) => [`f${i}.bin`, `${i}`]));
    const files = await zippedFiles(zip(parts));
    let open = 0;
    const watched = files.map(({ path, read }) => ({
      path,
      async *read() {
        expect(++open).toBe(1);
        yield* await read();
        open--;
      },
    }));
    expect((await siteBuild('x', watched)).files).toHaveLength(20);
  });
});

/** A file as it is, in a ZIP. */
const stored = (name: string, bytes: Buffer): Buffer => Buffer.from(zipSync({ [name]: bytes }, { level: 0 }));

/** The directory names the first entry again and again, each time with another name, and with the size it claims. */
function repeated(zipped: Buffer, times: number, claimed: number): Buffer {
  const central = zipped.indexOf(Buffer.from([0x50, 0x4b, 1, 2]));
  const end = zipped.indexOf(Buffer.from([0x50, 0x4b, 5, 6]));
  const entries = Array.from({ length: times }, (_, i) => {
    const entry = Buffer.from(zipped.subarray(central, end));
    entry.writeUInt32LE(claimed, 24);
    entry.write(String.fromCharCode(97 + (i % 26)), 46);
    return entry;
  });
  const directory = Buffer.concat(entries);
  const tail = Buffer.from(zipped.subarray(end));
  tail.writeUInt16LE(times, 8);
  tail.writeUInt16LE(times, 10);
  tail.writeUInt32LE(directory.length, 12);
  return Buffer.concat([zipped.subarray(0, central), directory, tail]);
}
