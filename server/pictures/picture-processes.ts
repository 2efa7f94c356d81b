/**
 * The processes that read and write pictures. The libraries that do it are native code over foreign bytes: nothing
 * in a file may take the server's memory or threads, so none of it runs in the server.
 */
import { createHash } from 'node:crypto';
import { WorkerEnded } from '#probe/work-pool';
import { Refused } from '#server/platform/errors';
import { serverWorkers } from '#server/platform/workers';
import type { PictureJob } from './picture-bytes';

/** For one look, or one small copy; many thumbnails may wait behind it. */
const SHORT_MS = 10_000;
/** For all icons and qualities of a large picture. */
const LONG_MS = 30_000;

const workers = serverWorkers('pictures-worker.mjs', {
  source: 'server/pictures/pictures-worker.ts',
  timeoutMs: LONG_MS,
  workers: 2,
  warm: 2,
  // a screen of thumbnails, for everybody at once
  mostWaiting: 500,
  process: { memoryBytes: 1024 * 1024 * 1024 },
  words: {
    late: 'The picture took too long to read. Make it smaller, or save it anew.',
    broken: 'The picture broke what reads it. Save it anew as PNG or JPEG.',
    full: 'Too many pictures are being read at once. Try again in a moment.',
  },
});
export const warmPictures = workers.warm;

/** Files that ended a process, by digest: they are not tried again for a while. */
const bad = new Map<string, { until: number; why: string }>();
const MOST_BAD = 1000;
const BAD_FOR_MS = 10 * 60_000;

const digestOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

function remember(digest: string, why: string): void {
  bad.set(digest, { until: performance.now() + BAD_FOR_MS, why });
  const [oldest] = bad.keys();
  if (bad.size > MOST_BAD) bad.delete(oldest!);
}

async function answerTo(job: PictureJob): Promise<string> {
  // of the other jobs it is not known which of their files it was
  const isOne = job.do === 'look' || job.do === 'thumb';
  const digest = isOne ? digestOf(job.bytes) : undefined;
  const known = digest === undefined ? undefined : bad.get(digest);
  if (known && known.until > performance.now()) throw new Refused(known.why);
  try {
    return await workers.run(job, isOne ? SHORT_MS : LONG_MS)!;
  } catch (error) {
    if (error instanceof WorkerEnded && digest !== undefined) remember(digest, error.message);
    throw new Refused((error as Error).message);
  }
}

/**
 * Whether a file can be drawn; asked before it becomes a part of a job with others, which would fail with it.
 * @returns why not, as a sentence for people
 */
export const drawingFault = (bytes: Uint8Array): Promise<string | undefined> =>
  answerTo({ do: 'thumb', bytes, width: 16 }).then(
    () => undefined,
    (error: unknown) => (error as Error).message,
  );

/** @throws Refused with a sentence for people */
export const inspectInProcess = async <Look>(job: PictureJob): Promise<Look> =>
  JSON.parse(await answerTo(job)) as Look;

/** @returns a file; @throws Refused with a sentence for people */
export const renderInProcess = async (job: PictureJob): Promise<Buffer> =>
  Buffer.from(await answerTo(job), 'base64');
