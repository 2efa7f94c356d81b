/** What follows from an event later is done exactly once, whichever process is killed and when. */
import { spawn, type ChildProcess } from 'node:child_process';
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { startDatabase } from '../../scripts/database.mjs';
import { closeDatabase, database } from '../../server/platform/db/connection';
import { migrate } from '../../server/platform/db/migrate';
import { inTransaction } from '../../server/platform/db/transaction';
import { emit, recipients, subscribe, subscribeLater } from '../../server/platform/domain-events';
import { deliverOne } from '../../server/platform/outbox';

const FOLDER = resolve('.test/outbox');
const parts: { stop(): Promise<void> }[] = [];

beforeAll(async () => {
  rmSync(FOLDER, { recursive: true, force: true });
  const { env } = await startDatabase(FOLDER, ['armband'], parts);
  Object.assign(process.env, env);
  await migrate();
  await database().query('CREATE TABLE test_caused (id INT UNSIGNED AUTO_INCREMENT PRIMARY KEY)');
  await database().query('CREATE TABLE test_handled (id INT UNSIGNED NOT NULL)');
  vi.spyOn(console, 'error').mockImplementation(() => {});
});
afterAll(async () => {
  await closeDatabase();
  for (const part of parts.reverse()) await part.stop();
  rmSync(FOLDER, { recursive: true, force: true });
});

const ids = async (sql: string): Promise<number[]> =>
  (await database().query<{ id: number }>(sql, { type: QueryTypes.SELECT })).map((r) => r.id);
const caused = (): Promise<number[]> => ids('SELECT id FROM test_caused ORDER BY id');
const waiting = (): Promise<number[]> => ids('SELECT id FROM event_delivery');

/** Handles all that waits. */
async function drain(): Promise<void> {
  while ((await waiting()).length) await deliverOne(recipients);
}

/** Starts a child again whenever it has died, until it is stopped. @returns how to stop it */
function keepAlive(role: 'cause' | 'handle'): () => Promise<number> {
  let child: ChildProcess;
  let deaths = 0;
  let isEnding = false;
  const ended = new Promise<void>((done) => {
    const start = (): void => {
      child = spawn(
        process.execPath,
        ['--import', 'tsx/esm', resolve('tests/integration/outbox-child.ts'), role],
        { env: { ...process.env, TSX_TSCONFIG_PATH: 'tsconfig.scripts.json' }, stdio: 'ignore' },
      );
      child.once('exit', () => {
        deaths++;
        if (isEnding) done();
        else start();
      });
    };
    start();
  });
  return async () => {
    isEnding = true;
    child!.kill('SIGKILL');
    await ended;
    return deaths;
  };
}

describe('what is to be done later', () => {
  it('is done exactly once, by two who handle and two who cause, all of them killed again and again', async () => {
    const stops = (['cause', 'cause', 'handle', 'handle'] as const).map(keepAlive);
    await vi.waitFor(async () => expect((await caused()).length).toBeGreaterThan(60), {
      timeout: 240_000,
      interval: 100,
    });
    const deaths = await Promise.all(stops.map((stop) => stop()));
    expect(Math.min(...deaths)).toBeGreaterThan(0);
    subscribeLater('test', ['SiteTouched'], async ({ siteId }, transaction) => {
      await database().query('INSERT INTO test_handled (id) VALUES (?)', {
        replacements: [siteId],
        transaction,
      });
    });
    // what a killed process held is free once its connection is gone
    await drain();
    expect(await ids('SELECT id FROM test_handled ORDER BY id')).toEqual(await caused());
  });

  it('is not done where what causes it is undone', async () => {
    await expect(
      inTransaction(async (transaction) => {
        await emit('SiteTouched', { siteId: 1 }, transaction);
        throw new Error('undone');
      }),
    ).rejects.toThrow('undone');
    expect(await waiting()).toEqual([]);
  });

  it('is tried again where it fails, and holds up nothing else', async () => {
    const done: number[] = [];
    let faults = 2;
    subscribeLater('test', ['LaunchChanged'], ({ siteId }) => {
      if (siteId === 1 && faults-- > 0) throw new Error('not yet');
      done.push(siteId);
      return Promise.resolve();
    });
    for (const siteId of [1, 2]) await emit('LaunchChanged', { siteId });
    await drain();
    expect(done).toEqual([2, 1]);
  });

  it('waits for a process that knows its subscriber', async () => {
    await database().query(
      "INSERT INTO event_delivery (subscriber, name, data, run_after) VALUES ('of a newer version', 'SiteTouched', '{}', NOW(3))",
    );
    expect(await deliverOne(recipients)).toBe(false);
    expect(await waiting()).toHaveLength(1);
    await database().query('DELETE FROM event_delivery');
  });

  it('goes with a fault of a subscriber in the same transaction', async () => {
    subscribe('PersonLeft', () => Promise.reject(new Error('no')));
    await expect(emit('PersonLeft', { personId: 1 })).rejects.toThrow('no');
  });
});
