/** A thread that judges stored evidence. */
import { parentPort } from 'node:worker_threads';
import { judgeBytes, type JudgeJob } from './judge-bytes';

parentPort!.on('message', (job: JudgeJob) => {
  judgeBytes(job).then(
    (verdict) => parentPort!.postMessage({ answer: JSON.stringify(verdict) }),
    (error: unknown) => parentPort!.postMessage({ error: (error as Error).message }),
  );
});
