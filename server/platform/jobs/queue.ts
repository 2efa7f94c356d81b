/** Putting work down, asking how far it is, waiting for it and stopping it: what services use. */
import { EventEmitter } from 'node:events';
import type { Transaction } from 'sequelize';
import { readAs } from '#core/entry/validation';
import { NotFound, Refused, deserializeError, type SerializedError } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import { PRIORITY, STOPPED, tidyUp, type JobDefinition, type Progress } from './definition';
import type { Delivery } from './delivery';
import { EmbeddedDelivery } from './embedded-delivery';
import {
  requestStop,
  finishWaiting,
  itemResults,
  jobRow,
  offers,
  insertJob,
  runningRows,
  type JobProgress,
  type JobRow,
  type JobState,
} from './job-table';
import { RedisDelivery } from './redis-delivery';

let delivery: Delivery | undefined;

/** MariaDB itself, or Redis where ARMBAND_REDIS names one. */
export function getDelivery(): Delivery {
  const { ARMBAND_REDIS: address } = process.env;
  return (delivery ??= address ? new RedisDelivery(address) : new EmbeddedDelivery());
}

export async function closeDelivery(): Promise<void> {
  await delivery?.close();
  delivery = undefined;
}

/** What happens to jobs in this process is known here at once: `end` and `stop` with a job's number. */
export const jobEvents = new EventEmitter().setMaxListeners(0);
/** How far those are that run in this process. */
export const localProgress = new Map<number, JobProgress>();

/** Says that work waits. Where that fails, it is offered again by and by. */
export async function offer(ids: readonly number[]): Promise<void> {
  if (!ids.length) return;
  try {
    await getDelivery().offer(await offers({ ids }));
  } catch (error) {
    console.error(`work will be offered again later: ${(error as Error).message}`);
  }
}

export interface Asked {
  by: string;
  title: string;
  priority?: number;
  /** How many items it has, where it has some. */
  total?: number;
  onlyKey?: string;
}

/**
 * Puts work down.
 * @param transaction where it is part of something larger; it is offered once that is through
 * @returns its number; null where work with the same key has not ended
 * @throws Refused for a payload that its kind does not take
 */
export async function enqueue<P extends object>(
  definition: JobDefinition<P>,
  payload: P,
  { by, title, priority = PRIORITY.person, total = 0, onlyKey }: Asked,
  transaction?: Transaction,
): Promise<number | null> {
  const { faults } = await readAs(definition.payload, JSON.parse(JSON.stringify(payload)));
  if (faults.length) throw new Refused(faults.map((f) => f.message).join('; '));
  const { name, lane } = definition;
  const id = await insertJob(
    { name, lane, priority, title, startedBy: by, payload, total, onlyKey },
    transaction,
  );
  if (id === null) return null;
  const tell = (): void => {
    void offer([id]);
    announce('JobChanged', { jobId: id });
  };
  if (transaction) transaction.afterCommit(tell);
  else tell();
  return id;
}

/** A job as screens see it. */
export interface Job {
  id: number;
  name: string;
  title: string;
  status: JobState;
  done: number;
  total: number;
  /** Items that could not be done; `error` says why the first could not. */
  failed: number;
  startedBy: string;
  /** How often it was cut off and begun again. */
  restarts: number;
  progress?: Progress;
  error?: string;
}

function shown(row: JobRow): Job {
  const here = localProgress.get(row.id);
  const progress = here?.progress ?? (row.progress ? (JSON.parse(row.progress) as Progress) : undefined);
  return {
    id: row.id,
    name: row.name,
    title: row.title,
    status: row.state,
    done: here?.done ?? row.done,
    total: row.total,
    failed: here?.failed ?? row.failed,
    startedBy: row.startedBy,
    restarts: row.losses,
    ...(progress ? { progress } : {}),
    ...(row.error ? { error: (JSON.parse(row.error) as SerializedError).message } : {}),
  };
}

const GONE = 'This work is not known, or not any more.';

/** @throws NotFound */
export async function jobById(id: number): Promise<Job> {
  const row = await jobRow(id);
  if (!row) throw new NotFound(GONE);
  return shown(row);
}

/** What its items gave so far. */
export const resultsOf = itemResults;

const MOST_NAMED = 200;

/** What is under way, the oldest first. */
export async function runningJobs(): Promise<Job[]> {
  return (await runningRows(MOST_NAMED)).map(shown);
}

/** Asks work to end. @throws NotFound */
export async function stopJob(id: number): Promise<void> {
  const waited = await finishWaiting(id, 'stopped', undefined, (job, transaction) =>
    tidyUp(job, 'stopped', STOPPED, transaction),
  );
  if (waited) {
    jobEvents.emit('end', id);
    announce('JobChanged', { jobId: id });
    return;
  }
  if (!(await jobRow(id))) throw new NotFound(GONE);
  await requestStop(id);
  jobEvents.emit('stop', id);
}

const LOOK_MS = 200;

/** Waits until a job has ended. @param signal ends the waiting, and the job */
async function whenEnded(id: number, signal: AbortSignal | undefined): Promise<JobRow> {
  for (;;) {
    const row = await jobRow(id);
    if (!row) throw new NotFound(GONE);
    if (row.state !== 'waiting' && row.state !== 'running') return row;
    if (signal?.aborted) {
      await stopJob(id);
      throw signal.reason as Error;
    }
    await new Promise<void>((resolve) => {
      const go = (ended?: number): void => {
        if (ended !== undefined && ended !== id) return;
        clearTimeout(timer);
        jobEvents.off('end', go);
        signal?.removeEventListener('abort', leave);
        resolve();
      };
      const leave = (): void => go();
      const timer = setTimeout(go, LOOK_MS);
      jobEvents.on('end', go);
      signal?.addEventListener('abort', leave, { once: true });
    });
  }
}

/**
 * Has work done and waits for what it gives.
 * @param signal ends it when whoever asked has left
 * @throws what the work threw
 */
export async function jobResult<P extends object, R>(
  definition: JobDefinition<P>,
  payload: P,
  asked: Asked,
  signal?: AbortSignal,
): Promise<R> {
  const id = await enqueue(definition, payload, asked);
  const row = await whenEnded(id!, signal);
  if (row.state === 'done') return JSON.parse(row.result ?? 'null') as R;
  throw deserializeError(
    row.error ? (JSON.parse(row.error) as SerializedError) : { name: 'Error', message: 'It was stopped.' },
  );
}
