/** Ratios against a bare baseline in the same run: the median over rounds that alternate between the two. */
const median = (list: number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1]!;

export async function ratio(
  name: string,
  goal: number,
  ours: () => unknown,
  baseline: () => unknown,
  rounds = 9,
): Promise<boolean> {
  const time = async (work: () => unknown): Promise<number> => {
    const t = performance.now();
    await work();
    return performance.now() - t;
  };
  // warm, as a server is that has been running for a while
  for (let i = 0; i < Math.max(2, rounds / 2); i++) {
    await time(baseline);
    await time(ours);
  }
  const ratios: number[] = [],
    a: number[] = [],
    b: number[] = [];
  for (let i = 0; i < rounds; i++) {
    const [base, own] =
      i % 2
        ? [await time(baseline), await time(ours)]
        : await (async () => {
            const own = await time(ours);
            return [await time(baseline), own];
          })();
    ratios.push(own! / base!);
    a.push(own!);
    b.push(base!);
  }
  return told(name, goal, ratios, a, b);
}

/**
 * Work on what the baseline has just made, as the server does that reads stored evidence and judges it: each
 * round's result is new, and worked on once.
 * @param warm rounds before it counts: there are hundreds of functions, and each is compiled only after it
 * was called some hundred times
 */
export function pairedRatio<T>(
  name: string,
  goal: number,
  baseline: () => T,
  ours: (made: T) => void,
  { warm = 3000, rounds = 500 } = {},
): boolean {
  const ratios: number[] = [],
    a: number[] = [],
    b: number[] = [];
  for (let i = 0; i < warm + rounds; i++) {
    const start = performance.now();
    const made = baseline();
    const between = performance.now();
    ours(made);
    const end = performance.now();
    if (i < warm) continue;
    ratios.push((end - between) / (between - start));
    a.push(end - between);
    b.push(between - start);
  }
  return told(name, goal, ratios, a, b);
}

function told(name: string, goal: number, ratios: number[], ours: number[], baseline: number[]): boolean {
  const r = median(ratios);
  process.stdout.write(`${name}: ratio ${r.toFixed(2)}, goal <= ${goal.toFixed(1)}\n`);
  process.stderr.write(
    `  ${name}: ours ${median(ours).toFixed(1)} ms, baseline ${median(baseline).toFixed(1)} ms\n`,
  );
  return r <= goal;
}
