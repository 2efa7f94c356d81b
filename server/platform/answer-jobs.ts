/** The other end of a pool, within its thread or process. */
import { parentPort } from 'node:worker_threads';

interface Answer {
  answer?: string;
  error?: string;
}

/** Answers each job's message with what is made of it. @param work its text, or an Error with a sentence */
export function answerJobs<Job>(work: (job: Job) => Promise<string>): void {
  const answerTo =
    (say: (answer: Answer) => void) =>
    (job: Job): void => {
      work(job).then(
        (answer) => say({ answer }),
        (error: unknown) => say({ error: (error as Error).message }),
      );
    };
  const port = parentPort;
  if (port) {
    port.on(
      'message',
      answerTo((answer) => port.postMessage(answer)),
    );
    return;
  }
  process.on(
    'message',
    answerTo((answer) => process.send!(answer)),
  );
  // whoever asked has gone: what a library still does is not waited for
  process.on('disconnect', () => process.kill(process.pid, 'SIGKILL'));
}
