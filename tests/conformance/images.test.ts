/** Kinds and sizes of pictures against sharp, which decodes them. */
import { imageSize } from 'image-size';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';

const SIZES: [number, number][] = [
  [1, 1],
  [16, 16],
  [48, 48],
  [1200, 630],
  [300, 1],
  [1, 300],
  [2047, 1023],
];
const FORMATS = ['png', 'jpeg', 'gif', 'webp', 'avif', 'tiff'] as const;

describe('pictures that sharp wrote', () => {
  it.each(FORMATS)('%s in seven sizes are read with the size that sharp reads', async (format) => {
    for (const [width, height] of SIZES) {
      const bytes = await sharp({ create: { width, height, channels: 3, background: '#3a3f8f' } })
        .toFormat(format)
        .toBuffer();
      const theirs = await sharp(bytes).metadata();
      const ours = imageSize(new Uint8Array(bytes));
      expect([ours.width, ours.height], `${format} ${width}x${height}`).toEqual([
        theirs.width,
        theirs.height,
      ]);
    }
  });
  it('an SVG with a size, and one with a viewBox only', async () => {
    for (const svg of [
      '<svg xmlns="http://www.w3.org/2000/svg" width="120" height="80"/>',
      '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 32"/>',
    ]) {
      const theirs = await sharp(Buffer.from(svg)).metadata();
      const ours = imageSize(new TextEncoder().encode(svg));
      expect([ours.width, ours.height]).toEqual([theirs.width, theirs.height]);
    }
  });
  it('every size inside an ICO', async () => {
    const pngs = await Promise.all(
      [16, 32, 48, 256].map((n) =>
        sharp({ create: { width: n, height: n, channels: 4, background: '#fff' } })
          .png()
          .toBuffer(),
      ),
    );
    const head = Buffer.alloc(6 + 16 * pngs.length);
    head.writeUInt16LE(1, 2);
    head.writeUInt16LE(pngs.length, 4);
    let at = head.length;
    pngs.forEach((png, i) => {
      const size = [16, 32, 48, 0][i]!;
      head[6 + 16 * i] = size;
      head[7 + 16 * i] = size;
      head.writeUInt16LE(32, 12 + 16 * i);
      head.writeUInt32LE(png.length, 14 + 16 * i);
      head.writeUInt32LE(at, 18 + 16 * i);
      at += png.length;
    });
    expect(imageSize(new Uint8Array(Buffer.concat([head, ...pngs]))).images?.map((i) => i.width)).toEqual([
      16, 32, 48, 256,
    ]);
  });
});
