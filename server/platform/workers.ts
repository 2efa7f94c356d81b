/** Threads and processes beside the server, where the build has their programs. */
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { WorkPool, type PoolOptions } from '#probe/work-pool';
import { onShutdown } from './shutdown';

export interface ServerWorkers {
  /** @returns nothing where there are no workers, so that the work is done here (in development) */
  run: (job: object, timeoutMs?: number) => Promise<string> | undefined;
  /** Starts those that are kept warm. */
  warm: () => void;
}

interface Options extends Omit<PoolOptions, 'file'> {
  /** The program's source, from the project's root: what is never done here is done from it in development. */
  source?: string;
}

/** @param program the file that the build puts beside the server */
export function serverWorkers(program: string, { source, ...options }: Options): ServerWorkers {
  let pool: WorkPool | undefined;
  let looked = false;
  const open = (): WorkPool | undefined => {
    if (looked) return pool;
    looked = true;
    const file = join(dirname(process.argv[1] ?? ''), program);
    if (existsSync(file)) pool = new WorkPool({ ...options, file });
    else if (source && options.process)
      pool = new WorkPool({
        ...options,
        file: join(process.cwd(), source),
        process: { ...options.process, execArgv: ['--import', 'tsx/esm'] },
      });
    return pool;
  };
  onShutdown(async () => {
    await pool?.close();
    pool = undefined;
    looked = false;
  });
  return {
    run: (job, timeoutMs) => open()?.run(job, timeoutMs),
    warm: () => void open(),
  };
}
