/** How far two pictures of a page differ, with what differs by itself left out. */
import pixelmatch from 'pixelmatch';

/** Pixels as red, green, blue and alpha, row by row. */
export interface Raster {
  width: number;
  height: number;
  data: Uint8Array;
}

export interface PictureDifference {
  /** Of the pixels that count, how many differ. */
  share: number;
  /** Of all pixels, how many were left out, since they differ between two takes of one page. */
  masked: number;
  /** What differs in red, on the faded second picture; what was left out in grey. */
  picture: Raster;
}

/** Neighbours of what moves by itself are left out too. */
const BLOCK = 16;
/** From which difference of colours two pixels differ (YIQ, as pixelmatch measures it). */
const THRESHOLD = 0.1;
const RED = [178, 58, 30] as const;
const GREY = [154, 163, 175] as const;

/** A picture on a larger ground; what it lacks is clear. */
function grown({ width, height, data }: Raster, to: { width: number; height: number }): Raster {
  if (width === to.width && height === to.height) return { width, height, data };
  const out = new Uint8Array(to.width * to.height * 4);
  for (let y = 0; y < Math.min(height, to.height); y++) {
    const row = data.subarray(y * width * 4, y * width * 4 + Math.min(width, to.width) * 4);
    out.set(row, y * to.width * 4);
  }
  return { ...to, data: out };
}

/** Where two pictures of one size differ: a byte for each pixel. */
function differing(a: Raster, b: Raster): Uint8Array {
  const { width, height } = a;
  const marked = new Uint8Array(width * height * 4);
  pixelmatch(a.data, b.data, marked, width, height, {
    threshold: THRESHOLD,
    diffMask: true,
    includeAA: false,
  });
  const out = new Uint8Array(width * height);
  for (let i = 0; i < out.length; i++) out[i] = marked[i * 4 + 3] ? 1 : 0;
  return out;
}

/** Blocks in which two takes of one page differ are left out whole. */
function addMask(mask: Uint8Array, width: number, a: Raster, b: Raster): void {
  const size = { width: Math.min(a.width, b.width), height: Math.min(a.height, b.height) };
  const spots = differing(grown(a, size), grown(b, size));
  const height = mask.length / width;
  for (let y = 0; y < size.height; y++)
    for (let x = 0; x < size.width; x++) {
      if (!spots[y * size.width + x]) continue;
      const [left, top] = [x - (x % BLOCK), y - (y % BLOCK)];
      // a block is filled once
      if (mask[top * width + left]) continue;
      for (let v = top; v < Math.min(top + BLOCK, height); v++)
        mask.fill(1, v * width + left, v * width + Math.min(left + BLOCK, width));
    }
}

/**
 * Compares two pictures; where one is longer, what it has more differs.
 * @param takes pairs of pictures of one and the same page, taken one after the other
 */
export function pictureDifference(
  first: Raster,
  second: Raster,
  takes: readonly (readonly [Raster, Raster])[] = [],
): PictureDifference {
  const size = {
    width: Math.max(first.width, second.width),
    height: Math.max(first.height, second.height),
  };
  const [a, b] = [grown(first, size), grown(second, size)];
  const spots = differing(a, b);
  const mask = new Uint8Array(spots.length);
  for (const [one, two] of takes) addMask(mask, size.width, one, two);
  const picture = new Uint8Array(spots.length * 4);
  let counted = 0;
  let differ = 0;
  for (let i = 0; i < spots.length; i++) {
    const at = i * 4;
    if (!mask[i]) {
      counted++;
      differ += spots[i]!;
    }
    const paint = mask[i] ? GREY : spots[i] ? RED : undefined;
    for (let c = 0; c < 3; c++)
      picture[at + c] = paint ? paint[c]! : Math.round(255 - (255 - (b.data[at + c] ?? 255)) * 0.2);
    picture[at + 3] = 255;
  }
  return {
    share: counted ? differ / counted : 0,
    masked: (spots.length - counted) / spots.length,
    picture: { ...size, data: picture },
  };
}
