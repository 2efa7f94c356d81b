/** The difference of two sequences: the shortest script of changes (Myers 1986, "An O(ND) difference algorithm"). */

export interface Step {
  kind: 'same' | 'gone' | 'added';
  text: string;
}

/** With more changes than this, all of the middle counts as replaced: nobody reads such a difference. */
const MOST_CHANGES = 1500;

/** The furthest points of each diagonal, change by change, until the end is reached; undefined where that takes too many. */
function trace(a: readonly string[], b: readonly string[]): Int32Array[] | undefined {
  const most = Math.min(a.length + b.length, MOST_CHANGES);
  const middle = most + 1;
  const furthest = new Int32Array(2 * most + 3);
  const out: Int32Array[] = [];
  for (let d = 0; d <= most; d++) {
    out.push(furthest.slice(middle - d - 1, middle + d + 2));
    for (let k = -d; k <= d; k += 2) {
      const down = k === -d || (k !== d && furthest[middle + k - 1]! < furthest[middle + k + 1]!);
      let x = down ? furthest[middle + k + 1]! : furthest[middle + k - 1]! + 1;
      while (x < a.length && x - k < b.length && a[x] === b[x - k]) x++;
      furthest[middle + k] = x;
      if (x >= a.length && x - k >= b.length) return out;
    }
  }
  return undefined;
}

/** Goes back from the end along what was traced. */
function backtrack(a: readonly string[], b: readonly string[], traced: Int32Array[]): Step[] {
  const steps: Step[] = [];
  let x = a.length;
  let y = b.length;
  for (let d = traced.length - 1; d >= 0; d--) {
    const row = traced[d]!;
    const at = (k: number): number => row[k + d + 1]!;
    const k = x - y;
    const down = k === -d || (k !== d && at(k - 1) < at(k + 1));
    const fromK = down ? k + 1 : k - 1;
    const fromX = d === 0 ? 0 : at(fromK);
    const fromY = d === 0 ? 0 : fromX - fromK;
    while (x > fromX && y > fromY && x > 0 && y > 0 && a[x - 1] === b[y - 1]) {
      steps.push({ kind: 'same', text: a[--x]! });
      y--;
    }
    if (d === 0) break;
    if (down) steps.push({ kind: 'added', text: b[--y]! });
    else steps.push({ kind: 'gone', text: a[--x]! });
  }
  return steps.reverse();
}

/**
 * How the first becomes the second. What both begin and end with alike is set aside first, which is most of it.
 */
export function diffSequence(a: readonly string[], b: readonly string[]): Step[] {
  let head = 0;
  while (head < a.length && head < b.length && a[head] === b[head]) head++;
  let tail = 0;
  while (
    tail < a.length - head &&
    tail < b.length - head &&
    a[a.length - 1 - tail] === b[b.length - 1 - tail]
  )
    tail++;
  const same = (texts: readonly string[]): Step[] => texts.map((text) => ({ kind: 'same', text }));
  const [left, right] = [a.slice(head, a.length - tail), b.slice(head, b.length - tail)];
  const traced = trace(left, right);
  const middle: Step[] = traced
    ? backtrack(left, right, traced)
    : [
        ...left.map((text): Step => ({ kind: 'gone', text })),
        ...right.map((text): Step => ({ kind: 'added', text })),
      ];
  return [...same(a.slice(0, head)), ...middle, ...same(a.slice(a.length - tail))];
}

/** A text as its sentences, each with the sign that ends it; what has none is one. */
export const sentencesOf = (text: string): string[] =>
  text
    .match(/[^.!?。！？]+(?:[.!?。！？]+["”’)\]]*|$)\s*/gu)
    ?.map((s) => s.trim())
    .filter(Boolean) ?? [];
