/** Icon files against a second reader (decode-ico), and against the list of sizes of a third (image-size). */
import decodeIco from 'decode-ico';
import { imageSize } from 'image-size';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { readIco, writeIco } from './ico';

const SIZES = [16, 32, 48, 256];
const png = (size: number): Promise<Buffer> =>
  sharp({ create: { width: size, height: size, channels: 4, background: '#3a3f8f' } })
    .png()
    .toBuffer();

describe('icon files', () => {
  it('are read by others as they were written', async () => {
    const entries = await Promise.all(SIZES.map(async (size) => ({ size, png: await png(size) })));
    const ico = writeIco(entries);
    const theirs = decodeIco(ico);
    expect(theirs.map((i) => [i.width, i.height, i.type])).toEqual(SIZES.map((s) => [s, s, 'png']));
    theirs.forEach((i, n) => expect(Buffer.from(i.data).equals(entries[n]!.png)).toBe(true));
    expect(imageSize(ico).images?.map((i) => i.width)).toEqual(SIZES);
    expect(readIco(ico).map((e) => e.size)).toEqual(SIZES);
    expect(Buffer.from(readIco(ico)[1]!.png).equals(entries[1]!.png)).toBe(true);
  });
  it.each([0, 257, 1.5])('no icon of %d px', (size) => {
    expect(() => writeIco([{ size, png: new Uint8Array(4) }])).toThrow(RangeError);
  });
  it.each([
    ['nothing', []],
    ['a cursor', [0, 0, 2, 0, 1, 0]],
    ['more entries than there are bytes', [0, 0, 1, 0, 255, 255, 1, 2, 3]],
    [
      'an entry that lies beyond the end',
      [0, 0, 1, 0, 1, 0, ...Array<number>(12).fill(255), 255, 255, 255, 127],
    ],
  ])('%s gives no picture', (_, bytes) => {
    expect(readIco(new Uint8Array(bytes))).toEqual([]);
  });
});
