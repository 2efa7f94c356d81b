/** What a listing shows of a text, and where it cuts it. */
import type { TextField } from '#core/checks/kit/default-texts';
import { countCharacters, isEastAsian, textWidth } from '#core/text/width';
import type { TextRoom } from '#core/pages/fit';
import { quantity } from '#core/text/quantity';

/** What a listing on a phone holds: lines are narrower, and there are more of them. Common practice, from memory. */
export const PHONE: Record<TextField, { width: number; size: number }> = {
  title: { width: 640, size: 18 },
  description: { width: 680, size: 14 },
};

const ELLIPSIS = '…';

export interface Ruler {
  /** What is shown, and what is cut; the two together are the text. */
  shown: string;
  cut: string;
  /** CSS pixels of the whole, rounded up, and of the room that is left; negative where it is cut. */
  px: number;
  left: number;
}

/** The ends of the words of a text, in code units: where it may be cut. */
function wordEnds(text: string): number[] {
  const ends = [...text.matchAll(/\S(?=\s)/gu)].map((m) => m.index + m[0].length);
  return ends.length
    ? ends
    : [...text].reduce<number[]>((all, c) => [...all, (all.at(-1) ?? 0) + c.length], []);
}

/**
 * Lays a text on a line of so many CSS pixels. Where it does not fit it is cut behind the last word that does,
 * together with the mark that says so; within a word only where the first one is too long.
 */
export function rulerOf(text: string, width: number, size: number): Ruler {
  const exact = textWidth(text, size);
  const px = Math.ceil(exact);
  if (exact <= width) return { shown: text, cut: '', px, left: Math.floor(width - exact) };
  const fits = (end: number): boolean => textWidth(text.slice(0, end) + ELLIPSIS, size) <= width;
  const ends = wordEnds(text);
  const letters = (): number[] =>
    [...text].reduce<number[]>((all, c) => [...all, (all.at(-1) ?? 0) + c.length], []);
  const last = lastThat(ends, fits) ?? lastThat(letters(), fits) ?? 0;
  return { shown: text.slice(0, last), cut: text.slice(last), px, left: Math.floor(width - exact) };
}

/** The last of them that holds, where those that do come first. */
function lastThat(list: readonly number[], holds: (n: number) => boolean): number | undefined {
  let low = 0;
  let high = list.length;
  while (low < high) {
    const middle = (low + high) >> 1;
    if (holds(list[middle]!)) low = middle + 1;
    else high = middle;
  }
  return low ? list[low - 1] : undefined;
}

/** How a text stands, in a few words: “thin: 41 of 80 characters”, “fits: 72 px left”, “cut after “by the””. */
export function standing(text: string, room: TextRoom): { words: string; isGood: boolean } {
  const count = countCharacters(text);
  if (!count) return { words: 'nothing written', isGood: false };
  const { shown, cut, left } = rulerOf(text, room.width, room.size);
  if (cut) {
    const lastWords = shown.trim().split(/\s+/).slice(-2).join(' ');
    return { words: `cut after “${lastWords}”`, isGood: false };
  }
  if (isEastAsian(text)) return { words: `fits: ${left} px left`, isGood: true };
  if (count < room.least) return { words: `thin: ${count} of ${room.least} characters`, isGood: false };
  if (count > room.most)
    return { words: `long: ${quantity(count - room.most, 'character')} over ${room.most}`, isGood: false };
  return { words: `fits: ${left} px left`, isGood: true };
}

/** Scripts that the table of widths has; the width of others is an estimate. */
const MEASURED =
  /^[\p{Script=Latin}\p{Script=Greek}\p{Script=Cyrillic}\p{Script=Hebrew}\p{Script=Common}\p{Script=Inherited}]*$/u;
export const isMeasured = (text: string): boolean => MEASURED.test(text);
