/**
 * Long work with progress that can be stopped. Kept in memory: a restart ends it, and doing it again does no
 * harm.
 */
import { randomUUID } from 'node:crypto';
import { NotFound } from '../errors';
import { announce } from '../events';

export interface Job<R = unknown> {
  id: string;
  title: string;
  done: number;
  total: number;
  /** Items that could not be done; `error` says why the first could not. */
  failed: number;
  status: 'running' | 'done' | 'stopped' | 'failed';
  startedBy: string;
  error?: string;
  results: R[];
}
interface Kept {
  job: Job;
  stop: AbortController;
  endedAt?: number;
}

const jobs = new Map<string, Kept>();
const KEPT_MS = 15 * 60_000;

/**
 * Does one step for each item, a few at once; what a step gives back is kept as a result.
 * @returns the job at once
 */
export function startJob<T, R>(
  title: string,
  by: string,
  items: readonly T[],
  step: (item: T) => Promise<R | undefined>,
  atOnce = 2,
): Job<R> {
  for (const [id, k] of jobs) if (k.endedAt && Date.now() - k.endedAt > KEPT_MS) jobs.delete(id);
  const job: Job<R> = {
    id: randomUUID(),
    title,
    done: 0,
    failed: 0,
    total: items.length,
    status: 'running',
    startedBy: by,
    results: [],
  };
  const kept: Kept = { job: job as Job, stop: new AbortController() };
  jobs.set(job.id, kept);
  let next = 0;
  const work = async (): Promise<void> => {
    while (next < items.length && !kept.stop.signal.aborted) {
      const item = items[next++]!;
      try {
        const result = await step(item);
        if (result !== undefined) job.results.push(result);
      } catch (error) {
        // the others are not to suffer for one
        console.error(`${title}: ${String(item)} failed`, error);
        job.failed++;
        job.error ??= (error as Error).message;
      }
      job.done++;
    }
  };
  void Promise.all(Array.from({ length: Math.min(atOnce, items.length) }, work))
    .then(
      () => {
        job.status = kept.stop.signal.aborted ? 'stopped' : 'done';
      },
      (error: unknown) => {
        console.error(`${title} failed`, error);
        kept.stop.abort();
        job.status = 'failed';
        job.error = (error as Error).message;
      },
    )
    .finally(() => {
      kept.endedAt = Date.now();
      announce([['job', job.id]]);
    });
  return job;
}

/** @throws NotFound */
export function jobById(id: string): Job {
  const kept = jobs.get(id);
  if (!kept) throw new NotFound('This work is not known, or not any more.');
  return kept.job;
}

export function stopJob(id: string): void {
  jobById(id);
  jobs.get(id)!.stop.abort();
}

/** What is running, without results. */
export function runningJobs(): Omit<Job, 'results'>[] {
  return [...jobs.values()]
    .map((k) => k.job)
    .filter((j) => j.status === 'running')
    .map(({ results: _, ...rest }) => rest);
}
