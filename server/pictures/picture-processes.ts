/** The thread that reads and writes pictures, beside the server. */
import { Refused } from '../platform/errors';
import { serverThreads } from '../platform/threads';
import type { PictureJob } from './picture-bytes';

const threads = serverThreads('pictures-worker.mjs', {
  timeoutMs: 30_000,
  threads: 1,
  words: {
    late: 'The picture took too long to read. Make it smaller, or save it anew.',
    broken: 'The picture broke what reads it. Save it anew as PNG or JPEG.',
  },
});
export const endPictures = threads.close;

async function answerTo(job: PictureJob): Promise<string> {
  try {
    // only where there is no thread are pictures read in this one
    return await (threads.run(job) ?? (await import('./picture-bytes')).workOnPicture(job));
  } catch (error) {
    throw new Refused((error as Error).message);
  }
}

/** @throws Refused with a sentence for people */
export const lookedAt = async <Look>(job: PictureJob): Promise<Look> =>
  JSON.parse(await answerTo(job)) as Look;

/** @returns a file; @throws Refused with a sentence for people */
export const madeOf = async (job: PictureJob): Promise<Buffer> => Buffer.from(await answerTo(job), 'base64');
