/**
 * How wide a text is in a face with Arial's metrics: the same on the server and in the browser, without a
 * font.
 */
import data from './arial-widths.json' with { type: 'json' };

const ADVANCES = new Map<number, number>(
  data.runs.flatMap(([start, widths]) =>
    (widths as number[]).map((w, i): [number, number] => [(start as number) + i, w]),
  ),
);
const KERNING = new Map<string, number>(Object.entries(data.kerning));
const EM = data.unitsPerEm;
/** For letters the face does not have: about the width of its own. */
const AVERAGE = Math.round(EM * 0.556);
/** Fallback faces draw a picture letter a good fifth wider than high (Noto Color Emoji, from memory). */
const EMOJI = Math.round(EM * 1.245);

/** East Asian Wide and Fullwidth (UAX 11): one em each in every face. */
const WIDE =
  /[\u1100-\u115f\u2e80-\u303e\u3041-\u33ff\u3400-\u4dbf\u4e00-\u9fff\ua000-\ua4cf\uac00-\ud7a3\uf900-\ufaff\ufe30-\ufe4f\uff00-\uff60\uffe0-\uffe6\u{20000}-\u{3fffd}]/u;
const NOTHING = /\p{M}|\p{Default_Ignorable_Code_Point}/u;
const PICTURE = /\p{Extended_Pictographic}/u;
let clusters: Intl.Segmenter | undefined;

function clusterWidth(cluster: string): number {
  if (
    (PICTURE.test(cluster) &&
      (cluster.includes('\ufe0f') || cluster.includes('\u200d') || !ADVANCES.has(cluster.codePointAt(0)!))) ||
    /^[\u{1f1e6}-\u{1f1ff}]{2}$/u.test(cluster)
  )
    return EMOJI;
  let width = 0;
  for (const c of cluster) {
    if (NOTHING.test(c)) continue;
    width += ADVANCES.get(c.codePointAt(0)!) ?? (WIDE.test(c) ? EM : AVERAGE);
  }
  return width;
}

const HEBREW = /\p{Script=Hebrew}/u;
const OF_ALL_SCRIPTS = /\p{Script=Common}|\p{Script=Inherited}/u;

/**
 * Where a text is set as Hebrew, whose rules in the face have no kerning: its letters, and figures and signs behind
 * them, or before the first letter of all (UAX 24 5.2).
 * @returns by code unit
 */
function setAsHebrew(text: string): boolean[] {
  const letters = [...text];
  let isHebrew = HEBREW.test(letters.find((c) => !OF_ALL_SCRIPTS.test(c)) ?? '');
  return letters.flatMap((c) => {
    if (!OF_ALL_SCRIPTS.test(c)) isHebrew = HEBREW.test(c);
    return Array<boolean>(c.length).fill(isHebrew);
  });
}

/** Letters, digits and the signs of running text: one code unit each, nothing to put together. */
const PLAIN = /^[\x20-\u024f\u2010-\u2026\u20ac]*$/;
/** Advances by code unit, for those. */
const TABLE = Uint16Array.from({ length: 0x2100 }, (_, c) => ADVANCES.get(c) ?? AVERAGE);
/** Kerning of Latin-1 pairs, by first and second letter. */
const PAIRS = new Int16Array(65_536);
for (const [pair, units] of KERNING)
  if (pair.charCodeAt(0) < 256 && pair.charCodeAt(1) < 256)
    PAIRS[(pair.charCodeAt(0) << 8) | pair.charCodeAt(1)] = units;

/**
 * The width of a text on one line.
 * @param size font size in CSS pixels
 * @returns CSS pixels, not rounded
 */
export function textWidth(text: string, size: number): number {
  const simple = PLAIN.test(text);
  const plain = simple ? text : text.normalize('NFC').replace(/[\t\n\r]+/g, ' ');
  let width = 0;
  if (!simple)
    for (const { segment } of (clusters ??= new Intl.Segmenter(undefined, {
      granularity: 'grapheme',
    })).segment(plain))
      width += clusterWidth(segment);
  const unkerned = !simple && HEBREW.test(plain) ? setAsHebrew(plain) : undefined;
  for (let i = 0, before = 0; i < plain.length; i++) {
    const c = plain.charCodeAt(i);
    if (simple) width += TABLE[c]!;
    if (unkerned?.[i]) {
      before = 0;
      continue;
    }
    if (before < 256 && c < 256) width += PAIRS[(before << 8) | c]!;
    else if (i) width += KERNING.get(plain[i - 1]! + plain[i]!) ?? 0;
    before = c;
  }
  return (width / EM) * size;
}

/** How many characters (code points) a text has. */
export function countCharacters(text: string): number {
  let n = 0;
  for (let i = 0; i < text.length; i++)
    if ((text.charCodeAt(i) & 0xfc00) !== 0xdc00 || (text.charCodeAt(i - 1) & 0xfc00) !== 0xd800) n++;
  return n;
}

/** Whether a text is mostly East Asian, where counting letters says little. */
export function isEastAsian(text: string): boolean {
  if (PLAIN.test(text)) return false;
  const letters = [...text].filter((c) => /\p{L}/u.test(c));
  return letters.length > 0 && letters.filter((c) => WIDE.test(c)).length * 2 > letters.length;
}

/** Type sizes of a listing's texts in CSS pixels. Common practice. */
export const LISTING_SIZE = { title: 20, description: 14 } as const;

/** What a line of a listing holds: characters from `least` to `most`, and pixels. */
export interface LineLimits {
  least: number;
  most: number;
  width: number;
}

/**
 * Whether a text fits on a line of a listing. Characters are not counted in East Asian text.
 * @param size font size in CSS pixels
 * @returns its characters, its width in CSS pixels, rounded up, and whether both are within the limits
 */
export function lineFit(text: string, size: number, { least, most, width }: LineLimits) {
  const count = countCharacters(text);
  const px = Math.ceil(textWidth(text, size));
  return { count, px, fits: px <= width && (isEastAsian(text) || (count >= least && count <= most)) };
}
