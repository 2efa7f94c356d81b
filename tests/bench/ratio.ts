/** Ratios against a bare baseline in the same run: the median over rounds that alternate between the two. */
const median = (list: number[]): number => [...list].sort((a, b) => a - b)[list.length >> 1]!;

export async function ratio(name: string, goal: number, ours: () => unknown, baseline: () => unknown, rounds = 9, prepare: () => void = () => {}): Promise<boolean> {
  const time = async (work: () => unknown): Promise<number> => { prepare(); const t = performance.now(); await work(); return performance.now() - t; };
  // warm, as a server is that has been running for a while
  for (let i = 0; i < Math.max(2, rounds / 2); i++) { await time(baseline); await time(ours); }
  const ratios: number[] = [], a: number[] = [], b: number[] = [];
  for (let i = 0; i < rounds; i++) {
    const [base, own] = i % 2 ? [await time(baseline), await time(ours)] : (await (async () => { const own = await time(ours); return [await time(baseline), own]; })());
    ratios.push(own! / base!); a.push(own!); b.push(base!);
  }
  const r = median(ratios);
  process.stdout.write(`${name}: ratio ${r.toFixed(2)}, goal <= ${goal.toFixed(1)}\n`);
  process.stderr.write(`  ${name}: ours ${median(a).toFixed(1)} ms, baseline ${median(b).toFixed(1)} ms\n`);
  return r <= goal;
}
