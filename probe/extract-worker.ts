/** A thread that reads pages and files. */
import { parentPort } from 'node:worker_threads';
import { extractHere } from './extractor';
import { readFileHere, type FileKind } from './file-reader';

interface Job {
  body: Uint8Array;
  contentType: string | undefined;
  /** What kind of file; a page where none is said. */
  kind?: FileKind;
  url: string;
  selectors?: readonly string[];
}

parentPort!.on('message', ({ body, contentType, kind, url, selectors }: Job) => {
  try {
    const bytes = Buffer.from(body.buffer, body.byteOffset, body.byteLength);
    const facts = kind
      ? readFileHere(kind, bytes, contentType)
      : extractHere(bytes, contentType, url, selectors);
    parentPort!.postMessage({ answer: JSON.stringify(facts) });
  } catch (error) {
    parentPort!.postMessage({ error: (error as Error).message });
  }
});
