/** The threads that judge for this server. */
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ThreadPool } from '#probe/thread-pool';
import { judgeBytes, type JudgeJob, type Verdict } from './judge-bytes';

let pool: ThreadPool | undefined;
let looked = false;

/** In threads where the build has their code beside the server; else, in development, in this one. */
export async function judgeInThread(job: JudgeJob): Promise<Verdict> {
  if (!looked) {
    looked = true;
    const file = join(dirname(process.argv[1] ?? ''), 'judge-worker.mjs');
    if (existsSync(file)) pool = new ThreadPool({ file, timeoutMs: 120_000 });
  }
  return pool ? (JSON.parse(await pool.run(job)) as Verdict) : judgeBytes(job);
}

export async function endJudging(): Promise<void> {
  await pool?.close();
  pool = undefined;
  looked = false;
}
