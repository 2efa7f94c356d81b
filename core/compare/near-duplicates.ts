/**
 * Which texts are nearly the same, among thousands: sketches of word runs (MinHash by one permutation: Li,
 * Owen and Zhang 2012), compared only where they share a part.
 */
import { memoizeShort } from '#core/remembering';

const RUN = 4;
/**
 * Parts of a sketch; a part is chosen by a run's upper bits of 31 and keeps its smallest run. Small integers
 * in plain arrays: room for typed arrays is costly to get.
 */
const PARTS = 64;
const SHIFT = 25;
/** Every so many parts are looked up; two texts that are 90 % alike share one of them all but surely. */
const STEP = 5;
/** A part that no run fell into. */
const EMPTY = 0x7fffffff;
/** Texts with fewer words are compared whole, not by their runs. */
const SHORT = 40;

/**
 * Bytes of UTF-8 that make words, ASCII letters as small ones; everything else nought. What `asWords` leaves
 * beyond ASCII are letters.
 */
const LETTERS = Uint8Array.from({ length: 256 }, (_, c) =>
  c >= 0x80
    ? c
    : /[a-z0-9]/i.test(String.fromCharCode(c))
      ? String.fromCharCode(c).toLowerCase().charCodeAt(0)
      : 0,
);
const encoder = new TextEncoder();
/** Bytes are read several times as quickly as a string's letters; the room is used again for each text. */
let room = new Uint8Array(65_536);

/** Scripts that write no blanks between words: each letter stands for one. */
const UNSPACED =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/gu;
const BEYOND_ASCII = /[^\0-\x7f]+/g;
/**
 * Letters beyond ASCII as small ones, signs between words as blanks, letters that are words apart. Most runs
 * are short, and few: a dash, an accented letter.
 */
const asWords = memoizeShort(
  (run) =>
    run
      .toLowerCase()
      .replace(/[\p{P}\p{S}\p{Z}]/gu, ' ')
      .replace(UNSPACED, '$& '),
  2,
  2000,
);

/** @returns how many bytes of `room` a text takes; one more of nought ends its last word */
function intoRoom(text: string): number {
  if (room.length < text.length * 3 + 1) room = new Uint8Array(text.length * 3 + 1);
  const { written } = encoder.encodeInto(text, room);
  room[written] = 0;
  return written;
}

/**
 * One pass over the text: words by FNV-1a, runs of them mixed as in MurmurHash3 so that near values spread.
 */
function sketchOf(text: string): number[] | null {
  // at least so many words with a blank between
  if (text.length < SHORT * 2) return null;
  let end = intoRoom(text);
  // letters beyond ASCII take more than a byte each
  if (end > text.length) end = intoRoom(text.replace(BEYOND_ASCII, asWords));
  const bytes = room,
    letters = LETTERS;
  const sketch = new Array<number>(PARTS).fill(EMPTY);
  let a = 0,
    b = 0,
    c = 0,
    words = 0;
  for (let i = 0; i < end;) {
    let letter = letters[bytes[i++]!]!;
    if (letter === 0) continue;
    let h = 0x811c9dc5;
    do {
      h = Math.imul(h ^ letter, 0x01000193);
      letter = letters[bytes[i++]!]!;
    } while (letter !== 0);
    if (++words >= RUN) {
      let run = (Math.imul((Math.imul((Math.imul(a, 31) + b) | 0, 31) + c) | 0, 31) + h) | 0;
      run ^= run >>> 16;
      run = Math.imul(run, 0x85ebca6b);
      run ^= run >>> 13;
      run = Math.imul(run, 0xc2b2ae35);
      run = (run ^ (run >>> 16)) >>> 1;
      if (run < sketch[run >>> SHIFT]!) sketch[run >>> SHIFT] = run;
    }
    a = b;
    b = c;
    c = h;
  }
  return words < SHORT ? null : sketch;
}

/**
 * The share of word runs that two texts have in common (Jaccard), estimated from their sketches; nought as
 * soon as it is sure to be below `least`.
 */
function likeness(a: number[], b: number[], least: number): number {
  let shared = 0,
    filled = 0;
  let mayDiffer = Math.floor((1 - least) * PARTS + 1e-9);
  for (let i = 0; i < PARTS; i++) {
    if (a[i] === b[i]) {
      if (a[i] !== EMPTY) {
        shared++;
        filled++;
      }
    } else {
      if (mayDiffer-- === 0) return 0;
      filled++;
    }
  }
  return shared / filled;
}

export interface Likeness {
  of: number;
  like: number;
  share: number;
}

/**
 * Finds for each text the first earlier one that it is nearly the same as.
 * @param texts as a reader sees them, white space folded
 * @param least share of word runs in common, 0 to 1; equal texts always count
 */
export function nearDuplicates(texts: readonly string[], least: number): Likeness[] {
  const exact = new Map<string, number>();
  const index = new Map<number, number[]>();
  const sketches: (number[] | null)[] = [];
  /** Which text each was last compared with. */
  const comparedWith = new Int32Array(texts.length).fill(-1);
  const out: Likeness[] = [];
  texts.forEach((text, of) => {
    sketches.push(null);
    if (!text) return;
    const same = exact.get(text);
    if (same !== undefined) {
      out.push({ of, like: same, share: 1 });
      return;
    }
    exact.set(text, of);
    // a sketch is an estimate, and cannot tell the last hundredth
    const sketch = least >= 1 ? null : (sketches[of] = sketchOf(text));
    if (!sketch) return;
    let like = -1,
      share = 0;
    for (let part = 0; part < PARTS; part += STEP) {
      const key = sketch[part]!;
      if (key === EMPTY) continue;
      const list = index.get(key);
      if (!list) {
        index.set(key, [of]);
        continue;
      }
      // a run that hundreds of pages share is the site's own frame, and tells nothing
      if (list.length < 200)
        for (const c of list) {
          if (like >= 0 && c >= like) break;
          if (comparedWith[c] === of) continue;
          comparedWith[c] = of;
          const s = likeness(sketches[c]!, sketch, least);
          if (s >= least) {
            like = c;
            share = s;
            break;
          }
        }
      list.push(of);
    }
    if (like >= 0) out.push({ of, like, share });
  });
  return out;
}
