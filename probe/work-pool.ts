/**
 * Threads or processes that do one job each at a time, so that a server goes on answering. Native code that reads
 * foreign bytes belongs into a process: a thread can be told to end, but what runs in a library stays on one of the
 * few threads that the whole server shares.
 */
import { fork } from 'node:child_process';
import { readFileSync } from 'node:fs';
import { constants, availableParallelism, setPriority } from 'node:os';
import { Worker } from 'node:worker_threads';

interface Waiting {
  job: object;
  timeoutMs?: number;
  resolve: (answer: string) => void;
  reject: (error: Error) => void;
}
/** What a worker says of a job. */
interface Answer {
  answer?: string;
  error?: string;
}

/** One that works: a thread or a process. */
interface PoolWorker {
  send(job: object): void;
  /** Whether it keeps the program alive. */
  hold(on: boolean): void;
  end(): Promise<unknown>;
}
interface Handlers {
  onAnswer: (answer: Answer) => void;
  onEnd: (reason?: string) => void;
}
type Start = (handlers: Handlers) => PoolWorker;

interface Place {
  worker: PoolWorker;
  now?: Waiting;
  timer?: NodeJS.Timeout;
}

export interface PoolOptions {
  /** How many work at once. */
  workers?: number;
  /** How many are started before there is work, and again when one was ended. */
  warm?: number;
  /** How long one job may take; then its worker is ended and another started. */
  timeoutMs?: number;
  /** How many jobs may wait; more are refused. */
  mostWaiting?: number;
  /**
   * The bundled program. It answers each job's message with `{ answer }`, a text, or `{ error }`.
   */
  file: string;
  /** A process of its own for each worker, with a limit of its memory; without it, a thread. */
  process?: ProcessOptions;
  /** What is said of a job that took too long, of one that ended its worker, and where too many wait. */
  words?: { late: string; broken: string; full?: string };
}
interface ProcessOptions {
  /** Of what it has in memory; above it is killed. */
  memoryBytes: number;
  /** Options for Node before the program. */
  execArgv?: string[];
}

/** The worker was ended while it did the job: the job took too long, too much memory, or broke it. */
export class WorkerEnded extends Error {
  override name = 'WorkerEnded';
}

const startThread =
  (file: string): Start =>
  ({ onAnswer, onEnd }) => {
    const worker = new Worker(file, { execArgv: [], resourceLimits: { maxOldGenerationSizeMb: 1024 } });
    worker.on('message', onAnswer);
    worker.on('error', (error) => onEnd(error.message));
    worker.on('exit', () => onEnd());
    return {
      send: (job) => worker.postMessage(job),
      hold: (on) => (on ? worker.ref() : worker.unref()),
      end: () => worker.terminate(),
    };
  };

const PAGE_BYTES = 4096;
const LOOK_MS = 50;

/** Bytes that a process has in memory; nothing when it has ended (proc(5), statm). */
function memoryOf(pid: number): number {
  try {
    return Number(readFileSync(`/proc/${pid}/statm`, 'latin1').split(' ')[1]) * PAGE_BYTES;
  } catch {
    return 0;
  }
}

/** A process that knows nothing of the server: no secret, no descriptor, no place above others. */
const startProcess =
  (file: string, { memoryBytes, execArgv = [] }: ProcessOptions): Start =>
  ({ onAnswer, onEnd }) => {
    const { PATH, TSX_TSCONFIG_PATH } = process.env;
    const child = fork(file, {
      serialization: 'advanced',
      stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
      execArgv: ['--max-old-space-size=512', ...execArgv],
      env: { PATH, NODE_ENV: process.env.NODE_ENV, ...(TSX_TSCONFIG_PATH ? { TSX_TSCONFIG_PATH } : {}) },
    });
    let watch: NodeJS.Timeout | undefined;
    const ended = new Promise<void>((resolve) => child.once('exit', () => resolve()));
    child.on('message', (answer) => onAnswer(answer as Answer));
    child.on('error', (error) => onEnd(error.message));
    child.on('exit', () => {
      clearInterval(watch);
      onEnd();
    });
    try {
      if (child.pid !== undefined) setPriority(child.pid, constants.priority.PRIORITY_BELOW_NORMAL);
    } catch {
      // it has ended already, which is told by its end
    }
    const isTooLarge = (): boolean => child.pid !== undefined && memoryOf(child.pid) > memoryBytes;
    return {
      send(job) {
        // an error is told to its listener above
        child.send(job, () => {});
      },
      hold(on) {
        clearInterval(watch);
        if (on) watch = setInterval(() => isTooLarge() && child.kill('SIGKILL'), LOOK_MS);
        if (on) child.ref();
        else child.unref();
        if (on) child.channel?.ref();
        else child.channel?.unref();
      },
      end() {
        child.kill('SIGKILL');
        return ended;
      },
    };
  };

export class WorkPool {
  private readonly places: Place[] = [];
  private readonly queue: Waiting[] = [];
  private closed = false;
  private readonly size: number;
  private readonly words: { late: string; broken: string; full?: string };
  private readonly startWorker: Start;

  constructor(private readonly options: PoolOptions) {
    this.size = options.workers ?? Math.max(1, Math.min(4, availableParallelism() - 1));
    this.words = options.words ?? { late: 'the work took too long', broken: 'the work broke its worker' };
    this.startWorker = options.process
      ? startProcess(options.file, options.process)
      : startThread(options.file);
    this.warm();
  }

  /**
   * @param timeoutMs for this job, where it is not the usual one
   * @returns the worker's answer, as text: one string is handed over faster than thousands of small objects
   * @throws WorkerEnded where the worker had to be ended; Error with what the worker said, or where too many wait
   */
  run(job: object, timeoutMs = this.options.timeoutMs): Promise<string> {
    if (this.closed) return Promise.reject(new Error('the workers have ended'));
    if (this.queue.length >= (this.options.mostWaiting ?? Infinity))
      return Promise.reject(new Error(this.words.full ?? 'too much waits already'));
    return new Promise((resolve, reject) => {
      this.queue.push({ job, timeoutMs, resolve, reject });
      this.pump();
    });
  }

  private warm(): void {
    while (this.places.length < (this.options.warm ?? 0)) this.start();
  }

  private pump(): void {
    while (this.queue.length) {
      let free = this.places.find((p) => !p.now);
      if (!free && this.places.length < this.size) free = this.start();
      if (!free) return;
      const place = free;
      const waiting = this.queue.shift()!;
      place.now = waiting;
      place.worker.hold(true);
      place.timer = setTimeout(() => this.drop(place, this.words.late), waiting.timeoutMs ?? 20_000);
      place.worker.send(waiting.job);
    }
  }

  private start(): Place {
    const place: Partial<Place> = {};
    place.worker = this.startWorker({
      onAnswer: (answer) => this.settle(place as Place, answer),
      onEnd: (reason) => this.drop(place as Place, reason ?? this.words.broken),
    });
    // an idle worker does not keep a program alive
    place.worker.hold(false);
    this.places.push(place as Place);
    return place as Place;
  }

  /** Takes a worker out of use; the job that it had is refused. */
  private drop(place: Place, reason: string): void {
    const at = this.places.indexOf(place);
    if (at < 0) return;
    this.places.splice(at, 1);
    void place.worker.end();
    const hadWork = place.now !== undefined;
    this.settle(place, new WorkerEnded(reason));
    // one that ends without work would only end again
    if (hadWork && !this.closed) this.warm();
  }

  private settle(place: Place, result: Answer | WorkerEnded): void {
    clearTimeout(place.timer);
    const { now } = place;
    place.now = undefined;
    place.worker.hold(false);
    if (!now) return;
    if (result instanceof WorkerEnded) now.reject(result);
    else if (result.answer === undefined) now.reject(new Error(result.error ?? 'no answer'));
    else now.resolve(result.answer);
    if (!this.closed) this.pump();
  }

  /** Ends all workers; what waits is refused. */
  async close(): Promise<void> {
    this.closed = true;
    for (const w of this.queue.splice(0)) w.reject(new Error('the workers have ended'));
    await Promise.all(this.places.splice(0).map((p) => p.worker.end()));
  }
}
