/** The threads that judge for this server. */
import { serverThreads } from '../platform/threads';
import { judgeBytes, type JudgeJob, type Verdict } from './judge-bytes';

const threads = serverThreads('judge-worker.mjs', { timeoutMs: 120_000 });
export const endJudging = threads.close;

export async function judgeInThread(job: JudgeJob): Promise<Verdict> {
  const answer = threads.run(job);
  return answer ? (JSON.parse(await answer) as Verdict) : judgeBytes(job);
}
