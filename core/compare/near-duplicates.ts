/** Which texts are nearly the same, among thousands: sketches of word runs (bottom-k MinHash), compared only where they share a rare one. */

const RUN = 4;
const SKETCH = 64;
/** Of each sketch, the smallest values are looked up; two texts that are 90 % alike share one of them all but surely. */
const KEYS = 12;
/** Texts with fewer words are compared whole, not by their runs. */
const SHORT = 40;

/** Letters and digits as small letters, everything else nought; beyond ASCII filled in when it is first needed. */
const LETTERS = new Uint16Array(65_536);
for (let c = 0; c < 128; c++) if (/[a-z0-9]/i.test(String.fromCharCode(c))) LETTERS[c] = String.fromCharCode(c).toLowerCase().charCodeAt(0);
let whole = false;
function fillLetters(): void {
  for (let c = 128; c < 65_536; c++) { const t = String.fromCharCode(c); if (/[\p{L}\p{N}]/u.test(t)) LETTERS[c] = t.toLowerCase().charCodeAt(0); }
  whole = true;
}

/** The smallest values seen, each once, in order. */
class Smallest {
  private readonly values = new Uint32Array(SKETCH);
  private size = 0;
  add(value: number): void {
    const { values } = this;
    if (this.size === SKETCH && value >= values[SKETCH - 1]!) return;
    let at = this.size;
    while (at > 0 && values[at - 1]! >= value) at--;
    if (at < this.size && values[at] === value) return;
    if (this.size < SKETCH) this.size++;
    values.copyWithin(at + 1, at, this.size - 1);
    values[at] = value;
  }
  get list(): Uint32Array { return this.values.subarray(0, this.size); }
}

/** One pass over the text: words by FNV-1a, runs of them mixed as in MurmurHash3 so that near values spread. */
function sketchOf(text: string): Uint32Array | null {
  // at least so many words with a blank between
  if (text.length < SHORT * 2) return null;
  const smallest = new Smallest();
  let a = 0, b = 0, c = 0, words = 0, h = 0x811c9dc5, inWord = false;
  for (let i = 0; i <= text.length; i++) {
    const unit = i < text.length ? text.charCodeAt(i) : 0;
    if (unit > 127 && !whole) fillLetters();
    const letter = LETTERS[unit]!;
    if (letter) { h = Math.imul(h ^ letter, 0x01000193); inWord = true; continue; }
    if (!inWord) continue;
    if (++words >= RUN) {
      let run = Math.imul(Math.imul(Math.imul(a, 31) + b | 0, 31) + c | 0, 31) + h | 0;
      run ^= run >>> 16; run = Math.imul(run, 0x85ebca6b); run ^= run >>> 13; run = Math.imul(run, 0xc2b2ae35);
      smallest.add((run ^ (run >>> 16)) >>> 0);
    }
    a = b; b = c; c = h; h = 0x811c9dc5; inWord = false;
  }
  return words < SHORT ? null : smallest.list;
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
