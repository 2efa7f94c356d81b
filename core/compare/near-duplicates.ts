/** Which texts are nearly the same, among thousands: sketches of word runs (bottom-k MinHash), compared only where they share a rare one. */

const RUN = 4;
const SKETCH = 64;
/** Of each sketch, the smallest values are looked up; two texts that are 90 % alike share one of them all but surely. */
const KEYS = 12;
/** Texts with fewer words are compared whole, not by their runs. */
const SHORT = 40;

/** FNV-1a over code units, finished as in MurmurHash3 so that near values spread. */
function hash(text: string): number {
  let h = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) h = Math.imul(h ^ text.charCodeAt(i), 0x01000193);
  h ^= h >>> 16; h = Math.imul(h, 0x85ebca6b); h ^= h >>> 13; h = Math.imul(h, 0xc2b2ae35);
  return (h ^ (h >>> 16)) >>> 0;
}

function sketchOf(text: string): Uint32Array | null {
  // at least so many words with a blank between
  if (text.length < SHORT * 2) return null;
  const words = text.toLowerCase().match(/[\p{L}\p{N}]+/gu);
  if (!words || words.length < SHORT) return null;
  const codes = words.map(hash);
  const values = new Set<number>();
  for (let i = 0; i + RUN <= codes.length; i++) {
    let h = 0;
    for (let j = 0; j < RUN; j++) h = Math.imul(h, 31) + codes[i + j]! | 0;
    h ^= h >>> 15; h = Math.imul(h, 0x2c1b3c6d); h ^= h >>> 12;
    values.add(h >>> 0);
  }
  return Uint32Array.from(values).sort().subarray(0, SKETCH);
}

/** The share of word runs that two texts have in common (Jaccard), estimated from their sketches. */
function likeness(a: Uint32Array, b: Uint32Array): number {
  let i = 0, j = 0, shared = 0, seen = 0;
  const size = Math.min(SKETCH, Math.max(a.length, b.length));
  while (seen < size && (i < a.length || j < b.length)) {
    const x = a[i] ?? Infinity, y = b[j] ?? Infinity;
    if (x === y) { shared++; i++; j++; } else if (x < y) i++; else j++;
    seen++;
  }
  return seen ? shared / seen : 1;
}

export interface Likeness { of: number; like: number; share: number }

/**
 * Finds for each text the first earlier one that it is nearly the same as.
 * @param texts as a reader sees them, white space folded
 * @param least share of word runs in common, 0 to 1; equal texts always count
 */
export function nearDuplicates(texts: readonly string[], least: number): Likeness[] {
  const exact = new Map<string, number>();
  const index = new Map<number, number[]>();
  const sketches: (Uint32Array | null)[] = [];
  const out: Likeness[] = [];
  texts.forEach((text, of) => {
    sketches.push(null);
    if (!text) return;
    const same = exact.get(text);
    if (same !== undefined) { out.push({ of, like: same, share: 1 }); return; }
    exact.set(text, of);
    // a sketch is an estimate, and cannot tell the last hundredth
    const sketch = least >= 1 ? null : sketches[of] = sketchOf(text);
    if (!sketch) return;
    const keys = sketch.subarray(0, KEYS);
    const candidates = new Set<number>();
    // a run that hundreds of pages share is the site's own frame, and tells nothing
    for (const key of keys) { const list = index.get(key); if (list && list.length < 200) for (const c of list) candidates.add(c); }
    for (const like of [...candidates].sort((a, b) => a - b)) {
      const share = likeness(sketches[like]!, sketch);
      if (share >= least) { out.push({ of, like, share }); break; }
    }
    for (const key of keys) { const list = index.get(key); if (list) list.push(of); else index.set(key, [of]); }
  });
  return out;
}
