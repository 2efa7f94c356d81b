/** Evidence is judged before its site is locked; what changes meanwhile makes it be judged again. */
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { IntendedText } from '#core/facts/intended-text';
import { startDatabase } from '../../scripts/database.mjs';
import { judgeInputs } from '../../server/audits/judge-environment';
import { reevaluate } from '../../server/audits/reevaluate';
import { closeDatabase, database } from '../../server/platform/db/connection';
import { migrate } from '../../server/platform/db/migrate';
import { useModels } from '../../server/platform/db/models';
import { fillStandings } from '../../server/reads/standing';
import { connectSubjects } from '../../server/subjects';
import { DUMPS, loadDump } from '../upgrade/kept-dumps';

const FOLDER = resolve('.test/judging');
const parts: { stop(): Promise<void> }[] = [];
let environmentId: number;

/** What a subject answers when it is asked for the nth time. */
let intended: (time: number) => IntendedText[];
let times = 0;

beforeAll(async () => {
  rmSync(FOLDER, { recursive: true, force: true });
  const { env } = await startDatabase(FOLDER, ['armband'], parts);
  Object.assign(process.env, env);
  loadDump(DUMPS.at(-1)!, env as Record<string, string>);
  useModels();
  connectSubjects();
  judgeInputs.answer(() => Promise.resolve({ intended: intended(++times) }));
  await migrate();
  await fillStandings();
  const [row] = await database().query<{ id: number }>(
    "SELECT e.id FROM environment e JOIN finding f ON f.environment_id = e.id WHERE e.kind = 'live' AND f.section = 'metadata' AND f.outcome = 'passed' LIMIT 1",
    { type: QueryTypes.SELECT },
  );
  environmentId = row!.id;
  // acceptances of an earlier version are carried over the first time, which judges as well
  intended = () => [];
  await reevaluate(environmentId, { cause: 'update', by: 'Armband' });
});
afterAll(async () => {
  await closeDatabase();
  for (const part of parts.reverse()) await part.stop();
  rmSync(FOLDER, { recursive: true, force: true });
});
beforeEach(() => {
  times = 0;
});

const text = (title: string): IntendedText[] => [{ path: '/', title }];

async function verdicts(): Promise<number> {
  const [row] = await database().query<{ n: number }>(
    'SELECT COUNT(*) AS n FROM verdict WHERE environment_id = ?',
    { type: QueryTypes.SELECT, replacements: [environmentId] },
  );
  return Number(row!.n);
}

/** What the stored finding says of the texts that were wanted. */
async function expectedTexts(): Promise<string> {
  const [row] = await database().query<{ data: string }>(
    "SELECT data FROM finding WHERE environment_id = ? AND check_id = 'metadata.as-intended'",
    { type: QueryTypes.SELECT, replacements: [environmentId] },
  );
  return row!.data;
}

describe('judging', () => {
  it('is done once where nothing changes', async () => {
    intended = () => text('Always');
    const before = await verdicts();
    await reevaluate(environmentId, { cause: 'update', by: 'Armband' });
    expect(times).toBe(2);
    expect(await verdicts()).toBe(before + 1);
    expect(await expectedTexts()).toContain('Always');
  });

  it('is done again where something changed meanwhile, and stored once, by what is so now', async () => {
    intended = (time) => text(time === 1 ? 'Then' : 'Now');
    const before = await verdicts();
    await reevaluate(environmentId, { cause: 'update', by: 'Armband' });
    expect(times).toBe(4);
    expect(await verdicts()).toBe(before + 1);
    expect(await expectedTexts()).toContain('Now');
    expect(await expectedTexts()).not.toContain('Then');
  });

  it('ends where something changes all the time', async () => {
    intended = (time) => text(`Version ${time}`);
    const before = await verdicts();
    await reevaluate(environmentId, { cause: 'update', by: 'Armband' });
    expect(times).toBe(6);
    expect(await verdicts()).toBe(before + 1);
    expect(await expectedTexts()).toContain('Version 6');
  });
});
