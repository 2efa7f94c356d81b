/** A thread that makes tables of pages. */
import { parentPort } from 'node:worker_threads';
import { pagesFromBytes, type PagesJob } from './page-bytes';

parentPort!.on('message', (job: PagesJob) => {
  pagesFromBytes(job).then(
    (answer) => parentPort!.postMessage({ answer }),
    (error: unknown) => parentPort!.postMessage({ error: (error as Error).message }),
  );
});
