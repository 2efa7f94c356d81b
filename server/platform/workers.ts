/** Threads beside the server, where the build has their programs; in development all is done in this one. */
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { ThreadPool, type PoolOptions } from '#probe/thread-pool';

export interface ServerThreads {
  /** @returns nothing where there are no threads, so that the work is done here */
  run: (job: object) => Promise<string> | undefined;
  close: () => Promise<void>;
}

/** @param program the file that the build puts beside the server */
export function serverThreads(program: string, options: Omit<PoolOptions, 'file'>): ServerThreads {
  let pool: ThreadPool | undefined;
  let looked = false;
  return {
    run(job) {
      if (!looked) {
        looked = true;
        const file = join(dirname(process.argv[1] ?? ''), program);
        if (existsSync(file)) pool = new ThreadPool({ ...options, file });
      }
      return pool?.run(job);
    },
    async close() {
      await pool?.close();
      pool = undefined;
      looked = false;
    },
  };
}
