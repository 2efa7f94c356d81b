/**
 * Five hundred stored audits re-evaluated in threads, as after a change of the checklist: how long, and how
 * long the server's own thread is held up meanwhile.
 */
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { resolve } from 'node:path';
import { fullChecklist } from '#core/checks/engine/checklist';
import type { Brief } from '#core/facts/brief';
import type { Evidence } from '#core/facts/evidence';
import { WorkPool } from '#probe/work-pool';
import { bundleJudgeWorker } from '../../scripts/worker-bundles.mjs';
import type { JudgeJob } from '../../server/audits/judge-bytes';
import { packJson } from '../../server/platform/packed';

const AUDITS = 500,
  AT_ONCE = 2;

async function each(n: number, work: () => Promise<unknown>): Promise<number> {
  const from = performance.now();
  let left = n;
  await Promise.all(
    Array.from({ length: AT_ONCE }, async () => {
      while (left-- > 0) await work();
    }),
  );
  return (performance.now() - from) / n;
}

/** @returns whether the goal was met: no pause of the server's thread that people would notice */
export async function benchReevaluating(evidence: Evidence, brief: Brief): Promise<boolean> {
  const job: JudgeJob = {
    evidence: await packJson(evidence),
    input: {
      at: evidence.finishedAt,
      of: { kind: 'live', stage: 'launched', replaces: false },
      brief,
      checklist: fullChecklist(),
      attestations: [],
      acceptances: [],
    },
  };
  const pool = new WorkPool({
    file: await bundleJudgeWorker(resolve('.test', 'bench', 'judge-worker.mjs')),
    timeoutMs: 60_000,
  });
  try {
    await each(20, async () => JSON.parse(await pool.run(job)) as object);
    const pauses = monitorEventLoopDelay({ resolution: 5 });
    pauses.enable();
    const one = await each(AUDITS, async () => JSON.parse(await pool.run(job)) as object);
    pauses.disable();
    const longest = pauses.max / 1e6;
    process.stdout.write(
      `judging ${AUDITS} stored audits again in threads: ${((one * AUDITS) / 1000).toFixed(1)} s\nlongest pause of the server's thread meanwhile: ${longest.toFixed(0)} ms, goal < 100 ms\n`,
    );
    return longest < 100;
  } finally {
    await pool.close();
  }
}
