/** A thread that reads pages. */
import { parentPort } from 'node:worker_threads';
import { extractHere } from './extractor';

interface Job {
  body: Uint8Array;
  contentType: string | undefined;
  url: string;
  selectors?: readonly string[];
}

parentPort!.on('message', ({ body, contentType, url, selectors }: Job) => {
  try {
    parentPort!.postMessage({
      answer: JSON.stringify(
        extractHere(Buffer.from(body.buffer, body.byteOffset, body.byteLength), contentType, url, selectors),
      ),
    });
  } catch (error) {
    parentPort!.postMessage({ error: (error as Error).message });
  }
});
