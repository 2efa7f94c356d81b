/** Whoever does the work: takes jobs up, keeps them while they run, and ends them one way or another. */
import { randomBytes } from 'node:crypto';
import { setMaxListeners } from 'node:events';
import { hostname } from 'node:os';
import type { Transaction } from 'sequelize';
import { readAs } from '#core/entry/validation';
import { retryWhileDatabaseDown } from '#server/platform/db/reachable';
import { inTransaction } from '#server/platform/db/transaction';
import { isDue } from '#server/platform/due';
import { serializeError, type SerializedError } from '#server/platform/errors';
import { announce } from '#server/platform/events';
import {
  definitionOf,
  LANES,
  LeaseLost,
  STOPPED,
  tidyUp,
  type Lane,
  type Progress,
  type Work,
} from './definition';
import {
  claimNext,
  countWaiting,
  finishJob,
  finishWaiting,
  deleteFinished,
  requeueExpired,
  ownsLease,
  finishedItems,
  saveItem,
  saveProgress,
  OFFERED_AT_ONCE,
  offers,
  requeue,
  renewLeases,
  type Claim,
  type JobProgress,
  type JobRow,
} from './job-table';
import { jobEvents, offer, localProgress, getDelivery } from './queue';

/** Cut off so often by whatever, it is not begun again: it may be what cuts it off. */
const MOST_LOSSES = 8;
const FIRST_PAUSE_MS = 5000;
const LONGEST_PAUSE_MS = 10 * 60_000;
/** How often jobs are kept, their progress is told and a stop is noticed. */
const BEAT_MS = 1000;
const AT_ONCE_STEPS = 2;

class StopError extends Error {}
class ShutdownError extends Error {}

/** A job that this process does. */
class RunningJob implements Work {
  readonly stop = new AbortController();
  readonly progressSoFar: JobProgress = { done: 0, failed: 0 };
  told = '';
  firstError: Error | undefined;
  /** Until when nobody else has it, by this process's own count of milliseconds. */
  safeUntil: number;

  constructor(
    private readonly row: JobRow,
    readonly claim: Claim,
    leaseMs: number,
    since: number,
  ) {
    setMaxListeners(0, this.stop.signal);
    this.safeUntil = since + leaseMs;
  }

  get id(): number {
    return this.row.id;
  }
  get signal(): AbortSignal {
    return this.stop.signal;
  }
  get losses(): number {
    return this.row.losses;
  }
  get by(): string {
    return this.row.startedBy;
  }

  // those that work take these apart
  readonly progress = (progress: Progress): void => {
    this.progressSoFar.progress = progress;
  };

  readonly each = async <T>(
    items: readonly T[],
    step: (item: T) => Promise<object | undefined>,
    atOnce = AT_ONCE_STEPS,
  ): Promise<void> => {
    const before = await finishedItems(this.id);
    const done = new Set(before.map((i) => i.item));
    this.progressSoFar.done = before.length;
    this.progressSoFar.failed = before.filter((i) => i.error !== null).length;
    const left = [...items.keys()].filter((i) => !done.has(i)).reverse();
    const work = async (): Promise<void> => {
      for (let i = left.pop(); i !== undefined && !this.signal.aborted; i = left.pop())
        await this.one(i, items[i]!, step);
    };
    await Promise.all(Array.from({ length: Math.min(atOnce, items.length) }, work));
    this.signal.throwIfAborted();
  };

  private async one<T>(
    item: number,
    value: T,
    step: (item: T) => Promise<object | undefined>,
  ): Promise<void> {
    try {
      const data = await retryWhileDatabaseDown(() => step(value), this.signal);
      await retryWhileDatabaseDown(() => saveItem(this.id, item, { data }), this.signal);
    } catch (error) {
      this.signal.throwIfAborted();
      // the others are not to suffer for one
      console.error(`${this.row.title}: item ${item} failed`, error);
      await retryWhileDatabaseDown(
        () => saveItem(this.id, item, { error: (error as Error).message }),
        this.signal,
      );
      this.firstError ??= error as Error;
      this.progressSoFar.failed++;
    }
    this.progressSoFar.done++;
  }

  readonly hold = async (transaction: Transaction): Promise<void> => {
    if (!(await ownsLease(this.claim, transaction))) throw new LeaseLost();
  };
}

export interface WorkerOptions {
  /** Jobs at once, beside those that somebody waits for. */
  atOnce: number;
  /** After so long without a word from a worker, its jobs go to others. */
  leaseMs: number;
  /** How long it is before something that failed is tried again; each time twice as long. */
  firstPauseMs?: number;
}

export class JobWorker {
  readonly name = `${hostname()} ${process.pid} ${randomBytes(4).toString('hex')}`.slice(0, 80);
  private readonly running = new Map<number, RunningJob>();
  private readonly ends: (() => Promise<void>)[] = [];
  private beat: NodeJS.Timeout | undefined;
  private ended = false;
  private readonly onStop = (id: number): void => this.running.get(id)?.stop.abort(new StopError());

  constructor(private readonly options: WorkerOptions) {}

  async start(): Promise<void> {
    jobEvents.on('stop', this.onStop);
    const runNext = (lane: Lane): Promise<boolean> => this.runNext(lane);
    if (this.options.atOnce)
      for (const lane of LANES)
        this.ends.push(await getDelivery().serve(lane, lane === 'waited' ? 1 : this.options.atOnce, runNext));
    const again = (): void => {
      this.beat = setTimeout(
        () => {
          void this.heartbeat().finally(() => {
            if (!this.ended) again();
          });
        },
        Math.min(BEAT_MS, this.options.leaseMs / 4),
      );
    };
    again();
  }

  /** Takes no more up, puts back what is under way, and waits until that is kept. */
  async stop(): Promise<void> {
    this.ended = true;
    clearTimeout(this.beat);
    jobEvents.off('stop', this.onStop);
    for (const job of this.running.values()) job.stop.abort(new ShutdownError());
    await Promise.all(this.ends.map((endServing) => endServing()));
  }

  private async runNext(lane: Lane): Promise<boolean> {
    if (this.ended) return false;
    const since = performance.now();
    const row = await claimNext(lane, this.name, this.options.leaseMs);
    if (!row) return false;
    const job = new RunningJob(
      row,
      { id: row.id, claims: row.claims, worker: this.name },
      this.options.leaseMs,
      since,
    );
    this.running.set(row.id, job);
    localProgress.set(row.id, job.progressSoFar);
    announce('JobChanged', { jobId: row.id });
    try {
      await this.run(row, job);
    } catch (error) {
      // its lease ends, and another takes it up
      console.error(`${row.title}: its end could not be kept`, error);
    } finally {
      this.running.delete(row.id);
      localProgress.delete(row.id);
      jobEvents.emit('end', row.id);
      announce('JobChanged', { jobId: row.id });
    }
    return true;
  }

  private async run(row: JobRow, job: RunningJob): Promise<void> {
    try {
      if (row.stopAsked) throw new StopError();
      const definition = definitionOf(row.name);
      const { value, faults } = await readAs(definition.payload, JSON.parse(row.payload));
      if (faults.length) throw new Error(faults.map((f) => f.message).join('; '));
      const result = await definition.run(value, job);
      job.signal.throwIfAborted();
      const { firstError, progressSoFar: howFar } = job;
      await retryWhileDatabaseDown(() => saveProgress(job.claim, howFar));
      await retryWhileDatabaseDown(() =>
        finishJob(job.claim, 'done', { result, error: firstError && serializeError(firstError) }),
      );
    } catch (error) {
      await this.endWith(row, job, job.signal.aborted ? (job.signal.reason as Error) : (error as Error));
    }
  }

  private async endWith(row: JobRow, job: RunningJob, error: Error): Promise<void> {
    if (error instanceof LeaseLost) return;
    await retryWhileDatabaseDown(() => saveProgress(job.claim, job.progressSoFar));
    if (error instanceof ShutdownError) {
      await retryWhileDatabaseDown(() => requeue(job.claim, { attempts: row.attempts, delayMs: 0 }));
      return;
    }
    if (error instanceof StopError) {
      await this.close(row, job, 'stopped', STOPPED);
      return;
    }
    console.error(`${row.title} failed`, error);
    const { firstPauseMs = FIRST_PAUSE_MS } = this.options;
    const { attempts = 1 } = definitionOf(row.name);
    const tried = row.attempts + 1;
    if (tried < attempts) {
      const delayMs = Math.min(LONGEST_PAUSE_MS, firstPauseMs * 2 ** (tried - 1));
      const savedProgress = serializeError(error);
      if (
        await retryWhileDatabaseDown(() =>
          requeue(job.claim, { attempts: tried, delayMs, error: savedProgress }),
        )
      )
        await offer([row.id]);
      return;
    }
    await this.close(row, job, 'failed', error.message, serializeError(error));
  }

  /** Ends a job that did not come to its end, and what belongs to it, where it is this worker's still. */
  private async close(
    row: JobRow,
    { claim: mine }: RunningJob,
    how: 'stopped' | 'failed',
    why: string,
    error?: SerializedError,
  ): Promise<void> {
    await retryWhileDatabaseDown(() =>
      inTransaction(async (transaction) => {
        if (!(await ownsLease(mine, transaction))) return;
        await tidyUp(row, how, why, transaction);
        await finishJob(mine, how, { error }, transaction);
      }),
    );
  }

  /** Keeps what is under way, and looks after what others have lost. */
  private async heartbeat(): Promise<void> {
    try {
      if (this.running.size) await this.renewLeases();
      if (await isDue('lost work', this.options.leaseMs / 4000)) await this.requeueLost();
    } catch {
      // the database is away: what cannot be kept may be another's soon
    }
    for (const job of this.running.values())
      if (performance.now() > job.safeUntil) job.stop.abort(new LeaseLost());
  }

  private async renewLeases(): Promise<void> {
    const since = performance.now();
    const held = new Map((await renewLeases(this.name, this.options.leaseMs)).map((h) => [h.id, h]));
    for (const job of this.running.values()) {
      const lease = held.get(job.id);
      // taken up just now, ended just now, or another's
      if (lease?.claims !== job.claim.claims) continue;
      job.safeUntil = since + this.options.leaseMs;
      if (lease.stopAsked) job.stop.abort(new StopError());
      const told = JSON.stringify(job.progressSoFar);
      if (told === job.told) continue;
      job.told = told;
      await saveProgress(job.claim, job.progressSoFar);
    }
  }

  private async requeueLost(): Promise<void> {
    for (const row of await requeueExpired()) {
      const why = 'It was cut off again and again.';
      const how = row.stopAsked ? 'stopped' : row.losses >= MOST_LOSSES ? 'failed' : undefined;
      if (!how) {
        console.info(`${row.title} was cut off and begins again`);
        continue;
      }
      await finishWaiting(row.id, how, serializeError(new Error(why)), (job, transaction) =>
        tidyUp(job, how, why, transaction),
      );
    }
    for (const lane of LANES) {
      const known = await getDelivery().waiting(lane);
      if (known === undefined) continue;
      if (known < Math.min(OFFERED_AT_ONCE, await countWaiting({ lane })))
        await getDelivery().offer(await offers({ lane }));
    }
    if (await isDue('forget ended work', 600)) await deleteFinished();
  }
}
