/** The queue's contract, the same over MariaDB itself and over BullMQ on Redis; and what several processes share. */
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { QueryTypes } from 'sequelize';
import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest';
import { startDatabase } from '../../scripts/database.mjs';
import { HostPermits } from '../../server/platform/network/host-permits';
import { tallies } from '../../server/people/tallies';
import { closeDatabase, database } from '../../server/platform/db/connection';
import { migrate } from '../../server/platform/db/migrate';
import { inTransaction } from '../../server/platform/db/transaction';
import { Conflict } from '../../server/platform/errors';
import { onChange } from '../../server/platform/events';
import { pollOtherProcesses, stopPolling } from '../../server/platform/change-feed';
import { IsArray, IsInt, Min } from '../../server/platform/http/validation';
import { defineJob, PRIORITY, type Work } from '../../server/platform/jobs/definition';
import { isDue } from '../../server/platform/due';
import { claimNext } from '../../server/platform/jobs/job-table';
import {
  closeDelivery,
  enqueue,
  jobById,
  resultsOf,
  runningJobs,
  stopJob,
  jobResult,
} from '../../server/platform/jobs/queue';
import { JobWorker } from '../../server/platform/jobs/worker';
import { useModels } from '../../server/platform/db/models';
import { Redis } from './redis';

const FOLDER = resolve('.test/jobs');
const LEASE_MS = 2000;
const parts: { stop(): Promise<void> }[] = [];
const redis = new Redis();

beforeAll(async () => {
  rmSync(FOLDER, { recursive: true, force: true });
  const { env } = await startDatabase(FOLDER, ['armband'], parts);
  Object.assign(process.env, env);
  useModels();
  await migrate();
  await redis.start();
  vi.spyOn(console, 'error').mockImplementation(() => {});
  vi.spyOn(console, 'info').mockImplementation(() => {});
});
afterAll(async () => {
  await closeDatabase();
  await redis.stop();
  for (const part of parts.reverse()) await part.stop();
  rmSync(FOLDER, { recursive: true, force: true });
});

class Numbers {
  @IsArray() @IsInt({ each: true }) @Min(0, { each: true }) list!: number[];
}

/** What the jobs of a test do; each test says it anew. */
let run: (list: number[], work: Work) => Promise<object | undefined>;
const ended: string[] = [];
const job = defineJob<Numbers>({
  name: 'test',
  lane: 'work',
  payload: Numbers,
  attempts: 3,
  run: ({ list }, work) => run(list, work),
  ended: (_, how, why) => {
    ended.push(`${how}: ${why}`);
    return Promise.resolve();
  },
});
const once = defineJob<Numbers>({ ...job, name: 'test once', lane: 'waited', attempts: 1 });

const put = (list: number[], asked: Partial<Parameters<typeof enqueue>[2]> = {}): Promise<number | null> =>
  enqueue(job, { list }, { by: 'Mara', title: `Numbers ${list.join()}`, total: list.length, ...asked });
const untilEnded = (id: number) =>
  vi.waitFor(
    async () => {
      const found = await jobById(id);
      expect(['done', 'failed', 'stopped']).toContain(found.status);
      return found;
    },
    { timeout: 30_000, interval: 50 },
  );
const untilRunning = (id: number) =>
  vi.waitFor(async () => expect((await jobById(id)).status).toBe('running'), { timeout: 20_000 });
/** Something that ends only when it is told to. */
const forEver = (_: number[], { signal }: Work): Promise<undefined> =>
  new Promise((resolve, reject) => {
    signal.addEventListener('abort', () => reject(signal.reason as Error));
  });

describe.each([
  ['MariaDB', false],
  ['Redis', true],
])('the queue over %s', (name, isOverRedis) => {
  const workers: JobWorker[] = [];
  const begin = async (atOnce = 2): Promise<JobWorker> => {
    const worker = new JobWorker({ atOnce, leaseMs: LEASE_MS, firstPauseMs: 20 });
    workers.push(worker);
    await worker.start();
    return worker;
  };
  beforeAll(() => {
    if (isOverRedis) process.env.ARMBAND_REDIS = redis.address;
    else delete process.env.ARMBAND_REDIS;
  });
  afterEach(async () => {
    await Promise.all(workers.splice(0).map((w) => w.stop()));
    await closeDelivery();
    // what a failed test left is not to be done in the next
    await database().query(
      "UPDATE job SET state = 'done', only_key = NULL WHERE state IN ('waiting', 'running')",
    );
    ended.length = 0;
  });

  it('does what is put down, once, and keeps what it gave for whoever asks later', async () => {
    let runs = 0;
    run = (list) => {
      runs++;
      return Promise.resolve({ sum: list.reduce((a, b) => a + b, 0) });
    };
    await Promise.all([begin(), begin()]);
    const id = (await put([1, 2, 3]))!;
    expect(await untilEnded(id)).toMatchObject({ status: 'done', startedBy: 'Mara', total: 3 });
    expect(runs).toBe(1);
    expect(await jobResult(once, { list: [4, 5] }, { by: 'Mara', title: 'A sum' })).toEqual({ sum: 9 });
  });

  it('a person who waits comes before the night, in the order of asking', async () => {
    const order: number[] = [];
    run = ([n]) => {
      order.push(n!);
      return Promise.resolve(undefined);
    };
    const ids = [
      await put([1], { priority: PRIORITY.night }),
      await put([2], { priority: PRIORITY.afterwards }),
      await put([3]),
      await put([4]),
    ];
    await begin(1);
    for (const id of ids) await untilEnded(id!);
    expect(order).toEqual([3, 4, 2, 1]);
  });

  it('tries again after a pause, and says why when it gives up', async () => {
    let tries = 0;
    run = () => {
      tries++;
      return Promise.reject(new Error('the number is odd today'));
    };
    await begin();
    const id = (await put([7]))!;
    expect(await untilEnded(id)).toMatchObject({ status: 'failed', error: 'the number is odd today' });
    expect(tries).toBe(3);
    expect(ended).toEqual(['failed: the number is odd today']);
    expect((await untilEnded((await put([8]))!)).status).toBe('failed');
  });

  it('succeeds where only the first try failed', async () => {
    let tries = 0;
    run = () => (++tries === 1 ? Promise.reject(new Error('not yet')) : Promise.resolve({ tries }));
    await begin();
    expect(await untilEnded((await put([1]))!)).toMatchObject({ status: 'done' });
    expect(ended).toEqual([]);
  });

  it('passes on what was refused, in its own kind', async () => {
    run = () => Promise.reject(new Conflict('It is taken.', { by: 'Joss' }));
    await begin();
    const asked = jobResult(once, { list: [1] }, { by: 'Mara', title: 'A conflict' });
    await expect(asked).rejects.toMatchObject({
      name: 'Conflict',
      message: 'It is taken.',
      data: { by: 'Joss' },
    });
    await expect(asked).rejects.toBeInstanceOf(Conflict);
  });

  it('stops what waits, and what runs, and tidies up after both', async () => {
    run = forEver;
    await begin(1);
    const first = (await put([1]))!;
    await untilRunning(first);
    const second = (await put([2]))!;
    await stopJob(second);
    expect((await jobById(second)).status).toBe('stopped');
    await stopJob(first);
    expect((await untilEnded(first)).status).toBe('stopped');
    expect(ended).toEqual(['stopped: Stopped by a person.', 'stopped: Stopped by a person.']);
  });

  it('ends what somebody waited for who has left', async () => {
    run = forEver;
    await begin();
    const left = new AbortController();
    const asked = jobResult(once, { list: [1] }, { by: 'Mara', title: 'Left alone' }, left.signal);
    const going = await vi.waitFor(async () => {
      const found = (await runningJobs()).find((j) => j.title === 'Left alone');
      expect(found).toBeDefined();
      return found!;
    });
    left.abort(new Conflict('gone'));
    await expect(asked).rejects.toThrow('gone');
    expect((await untilEnded(going.id)).status).toBe('stopped');
  });

  it('takes one of a key at a time', async () => {
    run = forEver;
    await begin();
    const id = (await put([1], { onlyKey: 'the one' }))!;
    expect(await put([2], { onlyKey: 'the one' })).toBeNull();
    await stopJob(id);
    await untilEnded(id);
    const next = await put([3], { onlyKey: 'the one' });
    expect(next).not.toBeNull();
    await stopJob(next!);
    await untilEnded(next!);
  });

  it('refuses what its kind does not take', async () => {
    await expect(put([-1])).rejects.toThrow(/list/);
    await expect(enqueue(job, { list: 'x' } as never, { by: 'Mara', title: '' })).rejects.toThrow(/list/);
  });

  it('shows how far it is, and keeps what each item gave; where one fails the others go on', async () => {
    const gate = new EventTarget();
    run = async (list, work) => {
      await work.each(
        list,
        async (n) => {
          if (n === 2) throw new Error('two is odd today');
          if (n === 4) await new Promise((r) => gate.addEventListener('go', r, { once: true }));
          return { twice: n * 2 };
        },
        1,
      );
      return undefined;
    };
    await begin();
    const id = (await put([1, 2, 3, 4]))!;
    await vi.waitFor(async () => expect(await jobById(id)).toMatchObject({ done: 3, failed: 1, total: 4 }));
    gate.dispatchEvent(new Event('go'));
    expect(await untilEnded(id)).toMatchObject({
      status: 'done',
      done: 4,
      failed: 1,
      error: 'two is odd today',
    });
    expect(await resultsOf(id)).toEqual([{ twice: 2 }, { twice: 6 }, { twice: 8 }]);
  });

  it('goes on elsewhere when a worker ends in order, with what was done kept', async () => {
    const seen: number[] = [];
    let hangs = true;
    run = async (list, work) => {
      await work.each(
        list,
        async (n) => {
          seen.push(n);
          if (n === 2 && hangs) await forEver([], work);
          return { n };
        },
        1,
      );
      return undefined;
    };
    const first = await begin(1);
    const id = (await put([1, 2, 3]))!;
    await vi.waitFor(() => expect(seen).toEqual([1, 2]));
    hangs = false;
    await begin(1);
    await first.stop();
    expect(await untilEnded(id)).toMatchObject({ status: 'done', done: 3, restarts: 0 });
    expect(seen).toEqual([1, 2, 2, 3]);
    expect(await resultsOf(id)).toEqual([{ n: 1 }, { n: 2 }, { n: 3 }]);
  });

  it('is taken up by another when a worker is silent for longer than its lease, and counts that', async () => {
    run = () => Promise.resolve(undefined);
    // a worker that took it and fell silent
    const id = (await put([1]))!;
    expect(await claimNext('work', 'a dead one', 300)).toMatchObject({ id });
    await begin();
    expect(await untilEnded(id)).toMatchObject({ status: 'done', restarts: 1 });
  });

  it('gives up what is cut off again and again', async () => {
    run = () => Promise.resolve(undefined);
    const id = (await put([1]))!;
    await claimNext('work', 'a dead one', 1);
    await database().query('UPDATE job SET losses = 7 WHERE id = ?', { replacements: [id] });
    await begin();
    expect(await untilEnded(id)).toMatchObject({
      status: 'failed',
      error: 'It was cut off again and again.',
    });
    expect(ended).toEqual(['failed: It was cut off again and again.']);
  });

  it('what lost its lease keeps nothing any more', async () => {
    let held: unknown;
    run = async (_, work) => {
      await database().query("UPDATE job SET worker = 'another', claims = claims + 1 WHERE id = ?", {
        replacements: [work.id],
      });
      held = await inTransaction((t) => work.hold(t)).catch((e: unknown) => e);
      return { kept: true };
    };
    await begin();
    const id = (await put([1]))!;
    await vi.waitFor(() => expect(held).toMatchObject({ name: 'LeaseLost' }));
    const [row] = await database().query<{ result: string | null; state: string }>(
      'SELECT result, state FROM job WHERE id = ?',
      { type: QueryTypes.SELECT, replacements: [id] },
    );
    expect(row).toEqual({ result: null, state: 'running' });
    await database().query("UPDATE job SET state = 'done' WHERE id = ?", { replacements: [id] });
  });

  if (isOverRedis)
    it('finds what was put down while Redis was away, and what Redis forgot', async () => {
      run = () => Promise.resolve(undefined);
      await begin();
      await untilEnded((await put([1]))!);
      await redis.stop('SIGKILL');
      const away = (await put([2]))!;
      await redis.start();
      expect((await untilEnded(away)).status).toBe('done');
    });
  else
    it(`finds what another process put down (${name})`, async () => {
      run = () => Promise.resolve(undefined);
      await begin();
      // without a word to this process
      await database().query(
        `INSERT INTO job (name, lane, priority, title, started_by, payload, state, run_after, created_at)
          VALUES ('test', 'work', 10, 'From elsewhere', 'Joss', '{"list":[1]}', 'waiting', NOW(3), NOW(3))`,
      );
      const [row] = await database().query<{ id: number }>(
        "SELECT id FROM job WHERE title = 'From elsewhere'",
        { type: QueryTypes.SELECT },
      );
      expect((await untilEnded(row!.id)).status).toBe('done');
    });
});

describe('what processes share', () => {
  it('of ten that ask whether something is due, one does it', async () => {
    const asked = await Promise.all(Array.from({ length: 10 }, () => isDue('the test', 60)));
    expect(asked.filter(Boolean)).toHaveLength(1);
    expect(await isDue('the test', 60)).toBe(false);
  });

  it('no more requests to one host at once than one process may make alone', async () => {
    const LIMIT = 3;
    const gates = ['a', 'b', 'c'].map((holder) => new HostPermits({ holder, limit: LIMIT, delayMs: 0 }));
    let inside = 0;
    let most = 0;
    const ask = async (i: number): Promise<void> => {
      const leave = await gates[i % gates.length]!.enter('www.a.example');
      most = Math.max(most, ++inside);
      await new Promise((r) => setTimeout(r, 20));
      inside--;
      leave();
    };
    await Promise.all(Array.from({ length: 60 }, (_, i) => ask(i)));
    expect(most).toBe(LIMIT);
    await Promise.all(gates.map((g) => g.close()));
  });

  it('a distance between two requests holds over processes', async () => {
    const DISTANCE = 60;
    const gates = ['a', 'b'].map((holder) => new HostPermits({ holder, limit: 4, delayMs: DISTANCE }));
    const starts: number[] = [];
    await Promise.all(
      Array.from({ length: 8 }, async (_, i) => {
        const leave = await gates[i % 2]!.enter('slow.example');
        starts.push(performance.now());
        leave();
      }),
    );
    starts.sort((a, b) => a - b);
    // a timer may fire a little early
    for (let i = 1; i < starts.length; i++) expect(starts[i]! - starts[i - 1]!).toBeGreaterThan(DISTANCE - 5);
    await Promise.all(gates.map((g) => g.close()));
  });

  it('permits of a process that died are free after its lease; whoever leaves the queue is let go', async () => {
    await database().query("INSERT INTO host_gate (host) VALUES ('b.example')");
    await database().query(
      "INSERT INTO host_permit (host, holder, permits, lease_until) VALUES ('b.example', 'dead', 2, NOW(3) + INTERVAL 600000 MICROSECOND)",
    );
    const gate = new HostPermits({ holder: 'alive', limit: 2, delayMs: 0 });
    const left = new AbortController();
    const gone = gate.enter('b.example', left.signal);
    const waiting = gate.enter('b.example');
    left.abort(new Conflict('stopped'));
    await expect(gone).rejects.toThrow('stopped');
    (await waiting)();
    await gate.close();
  });

  it('guesses at a password count whichever process is asked, and are forgotten after a right one', async () => {
    expect(await tallies.count(['account a', 'address b'])).toEqual([0, 0]);
    expect(await tallies.count(['account a', 'address b'])).toEqual([1, 1]);
    await tallies.right(['account a', 'address b']);
    expect(await tallies.count(['account a', 'address b'])).toEqual([0, 1]);
    await database().query('UPDATE sign_in_tally SET last_at = NOW(3) - INTERVAL 16 MINUTE');
    expect(await tallies.count(['account a', 'address b'])).toEqual([0, 0]);
  });

  it('what changes elsewhere is told here, once', async () => {
    pollOtherProcesses();
    const heard: unknown[] = [];
    const stop = onChange((c) => heard.push(c));
    const tell = (jobId: number) =>
      database().query('INSERT INTO change_event (origin, changes, at) VALUES (?, ?, NOW(3))', {
        replacements: ['elsewhere', JSON.stringify([{ name: 'JobChanged', data: { jobId } }])],
      });
    // the first look only finds where things stand
    let told = 0;
    await vi.waitFor(async () => {
      await tell(told++);
      expect(heard.length).toBeGreaterThan(0);
    });
    const before = heard.length;
    await tell(-1);
    await vi.waitFor(() =>
      expect(heard.at(-1)).toEqual({ name: 'JobChanged', data: { jobId: -1 }, fromElsewhere: true }),
    );
    expect(new Set(heard.map((h) => JSON.stringify(h))).size).toBe(heard.length);
    expect(heard.length).toBeGreaterThan(before);
    stop();
    stopPolling();
  });
});
