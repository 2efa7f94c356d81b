/** Marks where two short texts differ. */

export interface DiffPart {
  text: string;
  kind: 'same' | 'expected' | 'found';
}

const LONGEST = 400;

/**
 * Lengths of the longest common subsequence of every pair of ends, row by row: from `a[i]` and `b[j]` on it
 * stands at `i * (b.length + 1) + j`.
 */
function commonLengths(a: readonly string[], b: readonly string[]): Uint16Array {
  const width = b.length + 1;
  const lengths = new Uint16Array((a.length + 1) * width);
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      lengths[i * width + j] =
        a[i] === b[j]
          ? lengths[(i + 1) * width + j + 1]! + 1
          : Math.max(lengths[(i + 1) * width + j]!, lengths[i * width + j + 1]!);
  return lengths;
}

/** Joins characters of one kind into runs. */
function addTo(parts: DiffPart[], text: string, kind: DiffPart['kind']): void {
  const last = parts.at(-1);
  if (last?.kind === kind) last.text += text;
  else parts.push({ text, kind });
}

/**
 * The difference of two texts by characters (longest common subsequence), joined into runs.
 * @returns null when they have too little in common for marks to help, or are too long
 */
export function diffText(expected: string, found: string): DiffPart[] | null {
  const a = [...expected];
  const b = [...found];
  if (!a.length || !b.length || a.length > LONGEST || b.length > LONGEST) return null;
  const width = b.length + 1;
  const lengths = commonLengths(a, b);
  if (lengths[0]! * 2 < Math.max(a.length, b.length) * 1.2) return null;
  const parts: DiffPart[] = [];
  let i = 0;
  let j = 0;
  while (i < a.length && j < b.length) {
    if (a[i] === b[j]) {
      addTo(parts, a[i]!, 'same');
      i++;
      j++;
    } else if (lengths[(i + 1) * width + j]! >= lengths[i * width + j + 1]!)
      addTo(parts, a[i++]!, 'expected');
    else addTo(parts, b[j++]!, 'found');
  }
  while (i < a.length) addTo(parts, a[i++]!, 'expected');
  while (j < b.length) addTo(parts, b[j++]!, 'found');
  return parts;
}
