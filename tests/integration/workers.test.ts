/** Several processes at the same work, and what happens when they, the database or Redis are killed in the middle. */
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import mariadb from 'mariadb';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { freePort, startDatabase } from '../../scripts/database.mjs';
import { startStack } from '../../scripts/stack.mjs';
import { Redis } from './redis';
import { until } from './served';

type Stack = Awaited<ReturnType<typeof startStack>>;
const parts: { stop(): Promise<void> }[] = [];
const SETTINGS = { ARMBAND_LEASE: '4', ARMBAND_PAGES: '1', ARMBAND_WORKERS: '2' };

/** The built server as a worker. */
class WorkerProcess {
  child!: ChildProcess;
  constructor(private readonly env: Record<string, string>) {}

  async start(): Promise<this> {
    const port = String(await freePort());
    this.child = spawn(process.execPath, [resolve('.output/server/index.mjs')], {
      env: {
        PATH: process.env.PATH,
        NODE_ENV: 'production',
        PORT: port,
        ARMBAND_ROLE: 'worker',
        ...this.env,
      },
      stdio: 'ignore',
    });
    return Promise.resolve(this);
  }
  async end(signal: NodeJS.Signals): Promise<void> {
    const gone = once(this.child, 'exit');
    if (!this.child.kill(signal)) return;
    await gone;
  }
}

async function ask<T>(stack: Stack, sql: string): Promise<T[]> {
  const { env } = stack.database;
  const c = await mariadb.createConnection({
    host: '127.0.0.1',
    port: Number(env.ARMBAND_DB_PORT),
    user: env.ARMBAND_DB_USER,
    password: env.ARMBAND_DB_PASSWORD,
    database: env.ARMBAND_DB_NAME,
  });
  try {
    return [...((await c.query(sql)) as T[])];
  } finally {
    await c.end();
  }
}

const STATES = 'SELECT status, COUNT(*) AS count FROM audit GROUP BY status';
/** How many audits there are by how they stand. */
async function standing(stack: Stack): Promise<Record<string, number>> {
  const rows = await ask<{ status: string; count: bigint }>(stack, STATES).catch(() => []);
  return Object.fromEntries(rows.map((r) => [r.status, Number(r.count)]));
}
const left = ({ queued = 0, running = 0 }: Record<string, number>): number => queued + running;

/** Once all is through: each result once, none lost, nothing left behind. */
async function expectEachOnce(stack: Stack): Promise<void> {
  const one = async (sql: string): Promise<number> =>
    Number((await ask<{ count: bigint }>(stack, sql))[0]!.count);
  const audits = await one('SELECT COUNT(*) AS count FROM audit');
  expect(await standing(stack)).toEqual({ done: audits });
  expect(audits).toBe(await one('SELECT COUNT(*) AS count FROM environment'));
  expect(await one('SELECT COUNT(*) AS count FROM audit_evidence')).toBe(audits);
  expect(await one("SELECT COUNT(*) AS count FROM verdict WHERE cause = 'audit'")).toBe(audits);
  expect(await one('SELECT COUNT(*) AS count FROM environment WHERE last_audit_id IS NULL')).toBe(0);
  const openedTwice = `SELECT COUNT(*) AS count FROM (SELECT fix_id FROM fix_event WHERE kind = 'opened'
    GROUP BY fix_id HAVING COUNT(*) > 1) t`;
  expect(await one(openedTwice)).toBe(0);
  // a job ends a moment after what it gave was kept
  const open = "SELECT COUNT(*) AS count FROM job WHERE state IN ('waiting', 'running')";
  await until(
    () => one(open),
    (n) => n === 0,
  );
  expect(await one('SELECT COUNT(*) AS count FROM audit WHERE running_key IS NOT NULL')).toBe(0);
}

/** Never two at once at one environment: what the keys of the tables promise, looked at from outside. */
async function twoAtOnce(stack: Stack): Promise<number> {
  const rows = await ask<{ count: bigint }>(
    stack,
    `SELECT COUNT(*) AS count FROM (SELECT a.environment_id FROM job j JOIN audit a ON a.job_id = j.id
      WHERE j.state = 'running' GROUP BY a.environment_id HAVING COUNT(*) > 1) t`,
  ).catch(() => [{ count: 0n }]);
  return Number(rows[0]!.count);
}

afterAll(async () => {
  for (const part of parts.reverse()) await part.stop();
});

async function begin(folder: string, env: Record<string, string>): Promise<Stack> {
  rmSync(folder, { recursive: true, force: true });
  const stack = await startStack({ folder, env: { ...SETTINGS, ...env } });
  parts.push(stack);
  return stack;
}

describe('three workers, more than 100 audits', () => {
  const FOLDER = '.test/workers';
  let stack: Stack;
  const workers: WorkerProcess[] = [];
  beforeAll(async () => {
    process.env.ARMBAND_PRACTICE_MORE = '32';
    stack = await begin(FOLDER, { ARMBAND_WORKERS: '0' });
    delete process.env.ARMBAND_PRACTICE_MORE;
    const shared = { ...stack.settings, ARMBAND_WORKERS: '2' };
    const differences: Record<string, string>[] = [
      {},
      {},
      // one whose clock is off
      { NODE_OPTIONS: `--import ${resolve('tests/integration/shifted-clock.mjs')}` },
    ];
    for (const more of differences) workers.push(await new WorkerProcess({ ...shared, ...more }).start());
    parts.push({ stop: async () => void (await Promise.all(workers.map((w) => w.end('SIGKILL')))) });
  });

  it('killed at random, and MariaDB too: each result is kept once, none is lost, nothing is left behind', async () => {
    const all = left(await standing(stack));
    expect(all).toBeGreaterThan(100);
    // at these shares of the work one of them dies, in turn; in the middle the database does
    const deaths = [0.95, 0.85, 0.75, 0.6, 0.45, 0.3, 0.15];
    for (const [i, share] of deaths.entries()) {
      await until(
        () => standing(stack),
        (s) => s.done !== undefined && left(s) < share * all,
        240_000,
      );
      expect(await twoAtOnce(stack)).toBe(0);
      if (i === 3) {
        const { database } = stack;
        const gone = once(database.child, 'exit');
        database.child.kill('SIGKILL');
        await gone;
        await startDatabase(resolve(FOLDER, 'mariadb'), ['armband'], parts, database.port);
        continue;
      }
      const victim = workers[i % workers.length]!;
      await victim.end('SIGKILL');
      await victim.start();
    }
    await until(
      () => standing(stack),
      (s) => s.done !== undefined && left(s) === 0,
      240_000,
    );
    await expectEachOnce(stack);
    const [lost] = await ask<{ count: bigint }>(
      stack,
      'SELECT COUNT(*) AS count FROM audit WHERE restarts > 0',
    );
    expect(Number(lost!.count)).toBeGreaterThan(0);
  });
});

describe('a server and a worker over Redis', () => {
  const redis = new Redis();
  let stack: Stack;
  beforeAll(async () => {
    await redis.start();
    parts.push(redis);
    stack = await begin('.test/workers-redis', { ARMBAND_REDIS: redis.address });
    const worker = await new WorkerProcess(stack.settings).start();
    parts.push({ stop: () => worker.end('SIGKILL') });
  });

  it('Redis killed in the middle, with all that it knew: each result is kept once', async () => {
    const total = left(await standing(stack)) + ((await standing(stack)).done ?? 0);
    await until(
      () => standing(stack),
      (s) => (s.done ?? 0) > total / 3,
    );
    await redis.stop('SIGKILL');
    await redis.start();
    await until(
      () => standing(stack),
      (s) => s.done !== undefined && left(s) === 0,
    );
    await expectEachOnce(stack);
  });
});
