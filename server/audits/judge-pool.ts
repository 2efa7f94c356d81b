/** The threads that judge for this server. */
import { serverWorkers } from '#server/platform/workers';
import { judgeBytes, type JudgeJob, type Verdict } from './judge-bytes';

const threads = serverWorkers('judge-worker.mjs', { timeoutMs: 120_000 });

export async function judgeInThread(job: JudgeJob): Promise<Verdict> {
  const answer = threads.run(job);
  return answer ? (JSON.parse(await answer) as Verdict) : judgeBytes(job);
}
