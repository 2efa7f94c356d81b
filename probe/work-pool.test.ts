/** Processes that work: the same answers as anywhere, and none that takes the others' time, memory or secrets. */
import { mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterEach, beforeAll, describe, expect, it } from 'vitest';
import { WorkerEnded, WorkPool, type PoolOptions } from './work-pool';

let file: string;
beforeAll(() => {
  file = join(mkdtempSync(join(tmpdir(), 'armband-process-')), 'work.mjs');
  writeFileSync(
    file,
    `import { pbkdf2 } from 'node:crypto';
     const kept = [];
     const tasks = {
       echo: ({ text }) => ({ answer: text + ' ' + process.pid }),
       refuse: () => ({ error: 'not this one' }),
       env: () => ({ answer: JSON.stringify(Object.keys(process.env)) }),
       spin: () => { for (;;); },
       native: () => void pbkdf2('a', 'b', 2 ** 31 - 1, 64, 'sha512', () => {}),
       hoard: () => { for (;;) kept.push(Buffer.alloc(16 * 1024 * 1024, 1)); },
       end: () => process.exit(0),
     };
     process.on('message', (job) => {
       const said = tasks[job.do](job);
       if (said) process.send(said);
     });
     process.on('disconnect', () => process.kill(process.pid, 'SIGKILL'));`,
  );
});

const pools: WorkPool[] = [];
afterEach(async () => {
  await Promise.all(pools.splice(0).map((p) => p.close()));
});
function pool(options: Partial<PoolOptions> = {}): WorkPool {
  const made = new WorkPool({
    file,
    workers: 2,
    timeoutMs: 60_000,
    process: { memoryBytes: 300 * 1024 * 1024 },
    words: { late: 'too late', broken: 'broken', full: 'full' },
    ...options,
  });
  pools.push(made);
  return made;
}

describe('a pool of processes', () => {
  it('answers with what was said, in processes of its own', async () => {
    const p = pool();
    const [first, second] = await Promise.all([
      p.run({ do: 'echo', text: 'a' }),
      p.run({ do: 'echo', text: 'b' }),
    ]);
    expect(first).toMatch(/^a \d+$/);
    expect(second).toMatch(/^b \d+$/);
    expect(first.slice(2)).not.toBe(second.slice(2));
    expect([first, second].some((said) => said.endsWith(` ${process.pid}`))).toBe(false);
    await expect(p.run({ do: 'refuse' })).rejects.toThrow('not this one');
    await expect(p.run({ do: 'refuse' })).rejects.not.toBeInstanceOf(WorkerEnded);
  });
  it.each([
    ['that never returns', 'spin', 'too late'],
    ['that never returns within a library', 'native', 'too late'],
  ])('a job %s is killed, and the next is done', async (_, task, why) => {
    const p = pool({ workers: 1 });
    const error = await p.run({ do: task }, 500).catch((e: unknown) => e);
    expect(error).toBeInstanceOf(WorkerEnded);
    expect((error as Error).message).toBe(why);
    expect(await p.run({ do: 'echo', text: 'a' })).toMatch(/^a /);
  });
  it('a job that takes too much memory is killed', async () => {
    await expect(pool().run({ do: 'hoard' })).rejects.toThrow('broken');
  });
  it('a job that ends its process is told as broken', async () => {
    await expect(pool().run({ do: 'end' })).rejects.toBeInstanceOf(WorkerEnded);
  });
  it('while one hangs, others are answered', async () => {
    const p = pool();
    const hanging = p.run({ do: 'native' }, 3000).catch((e: unknown) => (e as Error).message);
    for (const text of ['a', 'b', 'c']) expect(await p.run({ do: 'echo', text })).toMatch(`${text} `);
    expect(await hanging).toBe('too late');
  });
  it('knows nothing of the server’s settings', async () => {
    process.env.ARMBAND_TEST_SECRET = 'x';
    const known = JSON.parse(await pool().run({ do: 'env' })) as string[];
    delete process.env.ARMBAND_TEST_SECRET;
    expect(known.filter((name) => /ARMBAND|NUXT/.test(name))).toEqual([]);
  });
  it('refuses where too many wait, and what waits when it is closed', async () => {
    const p = pool({ workers: 1, mostWaiting: 1 });
    const all = [1, 2, 3].map(() => p.run({ do: 'spin' }).catch((e: unknown) => (e as Error).message));
    expect(await all[2]).toBe('full');
    await p.close();
    expect(await all[1]).toBe('the workers have ended');
  });
});
