/** Worker threads that do one job each at a time, so that a server goes on answering. */
import { availableParallelism } from 'node:os';
import { Worker } from 'node:worker_threads';

interface Waiting {
  job: object;
  resolve: (answer: string) => void;
  reject: (error: Error) => void;
}
interface Thread {
  worker: Worker;
  now?: Waiting;
  timer?: NodeJS.Timeout;
}

export interface PoolOptions {
  threads?: number;
  /** How long one job may take; then its thread is ended and another started. */
  timeoutMs?: number;
  /**
   * The thread's bundled program. It answers each job's message with `{ answer }`, a text, or `{ error }`.
   */
  file: string;
  /** What is said of a job that took too long, and of one that ended its thread. */
  words?: { late: string; broken: string };
}

export class ThreadPool {
  private readonly threads: Thread[] = [];
  private readonly queue: Waiting[] = [];
  private closed = false;
  private readonly size: number;
  private readonly words: { late: string; broken: string };

  constructor(private readonly options: PoolOptions) {
    this.size = options.threads ?? Math.max(1, Math.min(4, availableParallelism() - 1));
    this.words = options.words ?? { late: 'the work took too long', broken: 'the work broke its thread' };
  }

  /**
   * @returns the thread's answer, as text: one string is handed over faster than thousands of small objects
   */
  run(job: object): Promise<string> {
    if (this.closed) return Promise.reject(new Error('the threads have ended'));
    return new Promise((resolve, reject) => {
      this.queue.push({ job, resolve, reject });
      this.pump();
    });
  }

  private pump(): void {
    while (this.queue.length) {
      let free = this.threads.find((t) => !t.now);
      if (!free && this.threads.length < this.size) free = this.start();
      if (!free) return;
      const waiting = this.queue.shift()!;
      free.now = waiting;
      free.worker.ref();
      free.timer = setTimeout(() => this.drop(free, this.words.late), this.options.timeoutMs ?? 20_000);
      free.worker.postMessage(waiting.job);
    }
  }

  private start(): Thread {
    const thread: Thread = {
      worker: new Worker(this.options.file, {
        execArgv: [],
        resourceLimits: { maxOldGenerationSizeMb: 1024 },
      }),
    };
    const { worker } = thread;
    // an idle thread does not keep a program alive
    worker.unref();
    worker.on('message', ({ answer, error }: { answer?: string; error?: string }) =>
      this.settle(thread, answer, error),
    );
    worker.on('error', (error) => this.drop(thread, error.message));
    worker.on('exit', () => this.drop(thread, this.words.broken));
    this.threads.push(thread);
    return thread;
  }

  /** Takes a thread out of use; what it had in hand is refused. */
  private drop(thread: Thread, reason: string): void {
    const at = this.threads.indexOf(thread);
    if (at < 0) return;
    this.threads.splice(at, 1);
    void thread.worker.terminate();
    this.settle(thread, undefined, reason);
  }

  private settle(thread: Thread, answer: string | undefined, error: string | undefined): void {
    clearTimeout(thread.timer);
    const { now } = thread;
    thread.now = undefined;
    thread.worker.unref();
    if (!now) return;
    if (answer === undefined) now.reject(new Error(error ?? 'no answer'));
    else now.resolve(answer);
    if (!this.closed) this.pump();
  }

  /** Ends all threads; what waits is refused. */
  async close(): Promise<void> {
    this.closed = true;
    for (const w of this.queue.splice(0)) w.reject(new Error('the threads have ended'));
    await Promise.all(this.threads.splice(0).map((t) => t.worker.terminate()));
  }
}
