/** Marks where two short texts differ. */

export interface DiffPart {
  text: string;
  kind: 'same' | 'expected' | 'found';
}

const LONGEST = 400;

/**
 * The difference of two texts by characters (longest common subsequence), joined into runs.
 * @returns null when they have too little in common for marks to help, or are too long
 */
export function diffText(expected: string, found: string): DiffPart[] | null {
  const a = [...expected],
    b = [...found];
  if (!a.length || !b.length || a.length > LONGEST || b.length > LONGEST) return null;
  const width = b.length + 1;
  const lengths = new Uint16Array((a.length + 1) * width);
  for (let i = a.length - 1; i >= 0; i--)
    for (let j = b.length - 1; j >= 0; j--)
      lengths[i * width + j] =
        a[i] === b[j]
          ? lengths[(i + 1) * width + j + 1]! + 1
          : Math.max(lengths[(i + 1) * width + j]!, lengths[i * width + j + 1]!);
  const common = lengths[0]!;
  if (common * 2 < Math.max(a.length, b.length) * 1.2) return null;
  const parts: DiffPart[] = [];
  const put = (text: string, kind: DiffPart['kind']) => {
    const last = parts.at(-1);
    if (last?.kind === kind) last.text += text;
    else parts.push({ text, kind });
  };
  let i = 0,
    j = 0;
  while (i < a.length || j < b.length) {
    if (i < a.length && j < b.length && a[i] === b[j]) {
      put(a[i]!, 'same');
      i++;
      j++;
    } else if (
      j >= b.length ||
      (i < a.length && lengths[(i + 1) * width + j]! >= lengths[i * width + j + 1]!)
    )
      put(a[i++]!, 'expected');
    else put(b[j++]!, 'found');
  }
  return parts;
}
