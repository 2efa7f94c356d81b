/** What is measured in a picture's pixels: red, green, blue and alpha, a byte each, row after row. */
import { formatHex, wcagContrast } from 'culori';
import type { Crop, Size } from './crop';
import { SAFE_RADIUS } from './measures';

export interface Pixels extends Size {
  /** width x height x 4 bytes, not multiplied by alpha. */
  rgba: Uint8Array;
}

const CHANNELS = 4;

/** Red, green and blue as they weigh where something shines through, and alpha itself. */
function premultiplied({ rgba }: Pixels): Float32Array {
  const out = new Float32Array(rgba.length);
  for (let i = 0; i < rgba.length; i += CHANNELS) {
    const alpha = rgba[i + 3]! / 255;
    for (let c = 0; c < 3; c++) out[i + c] = rgba[i + c]! * alpha;
    out[i + 3] = rgba[i + 3]!;
  }
  return out;
}

/**
 * How strong the edges of a picture are: the root mean square of the steps between neighbouring pixels, over all
 * channels. An edge that is spread over two pixels has half the squares of one that is not.
 * @returns 0 for a picture of one colour
 */
export function edgeStrength(pixels: Pixels): number {
  const { width, height } = pixels;
  const values = premultiplied(pixels);
  let sum = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const at = (y * width + x) * CHANNELS;
      for (let c = 0; c < CHANNELS; c++) {
        if (x + 1 < width) sum += (values[at + CHANNELS + c]! - values[at + c]!) ** 2;
        if (y + 1 < height) sum += (values[at + width * CHANNELS + c]! - values[at + c]!) ** 2;
      }
    }
  return Math.sqrt(sum / (width * height * CHANNELS * 2));
}

/**
 * How sharp an icon is that is enlarged, against one drawn in that size.
 * @returns the share of its edges, 1 at most; `null` where there are none to compare with
 */
export function sharpness(enlarged: Pixels, drawn: Pixels): number | null {
  const most = edgeStrength(drawn);
  return most === 0 ? null : Math.min(1, edgeStrength(enlarged) / most);
}

/** So many squares on a side tell what is drawn, however sharply. */
const SQUARES = 8;
/** Above this mean difference, of 255, two pictures show two drawings. By eye. */
const MOST_DIFFERENCE = 24;

/** The mean of each square of a picture, channel by channel. */
function squareMeans(pixels: Pixels): Float64Array {
  const { width, height } = pixels;
  const values = premultiplied(pixels);
  const sums = new Float64Array(SQUARES * SQUARES * CHANNELS);
  const counts = new Float64Array(SQUARES * SQUARES);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const square = Math.floor((y * SQUARES) / height) * SQUARES + Math.floor((x * SQUARES) / width);
      counts[square]!++;
      for (let c = 0; c < CHANNELS; c++)
        sums[square * CHANNELS + c]! += values[(y * width + x) * CHANNELS + c]!;
    }
  return sums.map((sum, i) => sum / Math.max(1, counts[Math.floor(i / CHANNELS)]!));
}

/** Whether two pictures show the same drawing, more or less sharply. */
export function isAlike(one: Pixels, other: Pixels): boolean {
  const [a, b] = [squareMeans(one), squareMeans(other)];
  const sum = a.reduce((total, value, i) => total + Math.abs(value - b[i]!), 0);
  return sum / a.length <= MOST_DIFFERENCE;
}

/** Pixels that are more solid than not. */
const VISIBLE = 128;
/** Colours that differ by less are one when the commonest is sought. */
const STEP = 32;

/** The commonest colour of what is visible, as "#rrggbb"; undefined where nothing is. */
export function mainColour({ rgba }: Pixels): string | undefined {
  const bins = new Map<number, { n: number; sum: [number, number, number] }>();
  for (let i = 0; i < rgba.length; i += CHANNELS) {
    if (rgba[i + 3]! < VISIBLE) continue;
    const [r, g, b] = [rgba[i]!, rgba[i + 1]!, rgba[i + 2]!];
    const key = Math.floor(r / STEP) * 64 + Math.floor(g / STEP) * 8 + Math.floor(b / STEP);
    const bin = bins.get(key) ?? { n: 0, sum: [0, 0, 0] };
    bin.n++;
    bin.sum[0] += r;
    bin.sum[1] += g;
    bin.sum[2] += b;
    bins.set(key, bin);
  }
  const [most] = [...bins.values()].sort((a, b) => b.n - a.n);
  if (!most) return undefined;
  const [r, g, b] = most.sum.map((s) => s / most.n / 255);
  return formatHex({ mode: 'rgb', r: r!, g: g!, b: b! });
}

/** The contrast of two colours, 1 to 21 (WCAG 2.2, "contrast ratio"). */
export const contrast = (one: string, other: string): number => wcagContrast(one, other);

/** So far from the background is drawing, not noise. */
const DRAWN = 48;

/** Whether a pixel, by its place in the bytes, differs from what the corners share; clear corners share nothing. */
function isDrawnOn({ rgba, width, height }: Pixels): (at: number) => boolean {
  const corners = [0, width - 1, (height - 1) * width, height * width - 1].map((p) => p * CHANNELS);
  const [r, g, b, a] = [0, 1, 2, 3].map((c) => corners.reduce((sum, at) => sum + rgba[at + c]!, 0) / 4);
  return (at) =>
    Math.abs(rgba[at + 3]! - a!) > DRAWN ||
    (rgba[at + 3]! >= VISIBLE &&
      (Math.abs(rgba[at]! - r!) > DRAWN ||
        Math.abs(rgba[at + 1]! - g!) > DRAWN ||
        Math.abs(rgba[at + 2]! - b!) > DRAWN));
}

/** The least part of a picture that holds all that is drawn on its ground; undefined where nothing is. */
export function drawnPart(pixels: Pixels): Crop | undefined {
  const { width, height } = pixels;
  const isDrawn = isDrawnOn(pixels);
  let [left, top, right, bottom] = [width, height, -1, -1];
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (!isDrawn((y * width + x) * CHANNELS)) continue;
      if (x < left) left = x;
      if (x > right) right = x;
      if (y < top) top = y;
      bottom = y;
    }
  return right < 0 ? undefined : { left, top, width: right - left + 1, height: bottom - top + 1 };
}

/**
 * How much of what is drawn lies outside of the safe zone. The background is what the corners share; nothing where
 * they are clear.
 * @returns a share of what is drawn, 0 to 1; 0 for an empty picture
 */
export function outsideSafeZone(pixels: Pixels): number {
  const { width, height } = pixels;
  const isDrawn = isDrawnOn(pixels);
  const radius = SAFE_RADIUS * Math.min(width, height);
  let drawn = 0;
  let outside = 0;
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (!isDrawn((y * width + x) * CHANNELS)) continue;
      drawn++;
      if (Math.hypot(x + 0.5 - width / 2, y + 0.5 - height / 2) > radius) outside++;
    }
  return drawn ? outside / drawn : 0;
}
