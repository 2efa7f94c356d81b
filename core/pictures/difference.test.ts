/** Against pairs whose difference is known. */
import { describe, expect, it } from 'vitest';
import { pictureDifference, type Raster } from './difference';

/** A white picture with black boxes. */
function sheet(
  width: number,
  height: number,
  ...boxes: [x: number, y: number, w: number, h: number][]
): Raster {
  const data = new Uint8Array(width * height * 4).fill(255);
  for (const [x, y, w, h] of boxes)
    for (let v = y; v < y + h; v++) for (let u = x; u < x + w; u++) data.set([0, 0, 0], (v * width + u) * 4);
  return { width, height, data };
}
const at = ({ picture }: { picture: Raster }, x: number, y: number): number[] => [
  ...picture.data.subarray((y * picture.width + x) * 4, (y * picture.width + x) * 4 + 3),
];

describe('two pictures', () => {
  it('that are the same do not differ', () => {
    expect(pictureDifference(sheet(64, 64, [8, 8, 8, 8]), sheet(64, 64, [8, 8, 8, 8]))).toMatchObject({
      share: 0,
      masked: 0,
    });
  });
  it('differ by the box that one has, which is shown', () => {
    const found = pictureDifference(sheet(100, 100), sheet(100, 100, [20, 20, 10, 10]));
    expect(found.share).toBe(0.01);
    expect(at(found, 25, 25)).toEqual([178, 58, 30]);
    expect(at(found, 60, 60)).toEqual([255, 255, 255]);
  });
  it('of which one is longer differ by what it has more', () => {
    expect(pictureDifference(sheet(50, 50), sheet(50, 100)).share).toBe(0.5);
  });
  it('differ not in what differs between two takes of one page, and around it', () => {
    const takes = [[sheet(96, 96, [33, 33, 4, 4]), sheet(96, 96)]] as const;
    const found = pictureDifference(sheet(96, 96), sheet(96, 96, [33, 33, 8, 8]), takes);
    expect(found).toMatchObject({ share: 0, masked: (16 * 16) / (96 * 96) });
    expect(at(found, 40, 40)).toEqual([154, 163, 175]);
    // and elsewhere they still do
    const beside = pictureDifference(sheet(96, 96), sheet(96, 96, [33, 33, 8, 8], [0, 0, 10, 10]), takes);
    expect(beside.share).toBeCloseTo(100 / (96 * 96 - 256), 6);
  });
  it('whose takes are of another size leave out what both show', () => {
    const takes = [[sheet(32, 16, [0, 0, 4, 4]), sheet(32, 32)]] as const;
    expect(pictureDifference(sheet(64, 64), sheet(64, 64), takes).masked).toBe(256 / 4096);
  });
});
