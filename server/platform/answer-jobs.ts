/** The other end of a thread pool, within the thread. */
import { parentPort } from 'node:worker_threads';

/** Answers each job's message with what is made of it. @param work its text, or an Error with a sentence */
export function answerJobs<Job>(work: (job: Job) => Promise<string>): void {
  parentPort!.on('message', (job: Job) => {
    work(job).then(
      (answer) => parentPort!.postMessage({ answer }),
      (error: unknown) => parentPort!.postMessage({ error: (error as Error).message }),
    );
  });
}
