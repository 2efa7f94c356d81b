/**
 * The long lists on many sites, in a real MariaDB: what they read to show one window does not grow with the number
 * of sites, no answer is too large for a screen, and what is counted all along is what counting anew gives.
 */
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { QueryTypes } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startDatabase } from '../../scripts/database.mjs';
import { historyOf } from '../../server/audits/history';
import { findingInFull, foldedLines, ledger, manualChecks, scoreSum } from '../../server/reads/ledger';
import { changeFixes } from '../../server/fixes/fixes';
import { listFaults, listFixes } from '../../server/reads/fixes';
import { messagesFor, notify } from '../../server/people/notifications';
import { closeDatabase, database } from '../../server/platform/db/connection';
import { connectSubjects } from '../../server/subjects';
import { useModels } from '../../server/platform/db/models';
import { renameClient, listClients, mergeClients } from '../../server/sites/clients';
import { deleteSite } from '../../server/sites/deleting';
import { findSites, rosterWindow, siteWithEnvironments } from '../../server/reads/roster';
import { changeSite } from '../../server/audits/judged-changes';
import type { RosterDto } from '../../server/sites/dto';
import { AUDITS, copyManySites, SITES } from '../many-sites';
import type { FixesDto } from '../../server/fixes/dto';

const FOLDER = resolve('.test/many');
const ME = 2;
const parts: { stop(): Promise<void> }[] = [];

beforeAll(async () => {
  copyManySites(FOLDER);
  const { env } = await startDatabase(FOLDER, ['armband'], parts);
  Object.assign(process.env, env);
  useModels();
  connectSubjects();
  for (let i = 0; i < 200; i++) await notify([ME], `message ${i}`, '/fixes');
}, 300_000);
afterAll(async () => {
  await closeDatabase();
  for (const part of parts.reverse()) await part.stop();
  rmSync(FOLDER, { recursive: true, force: true });
});

const select = <T extends object>(sql: string): Promise<T[]> =>
  database().query<T>(sql, { type: QueryTypes.SELECT });

/** Rows that the server has read so far, from tables and from what it sorts. */
async function rowsRead(): Promise<number> {
  const status = await select<{ Value: string }>("SHOW GLOBAL STATUS LIKE 'Handler_read%'");
  return status.reduce((sum, s) => sum + Number(s.Value), 0);
}

/** What one answer reads, without what asking for the status itself reads. */
async function cost(ask: () => Promise<unknown>): Promise<{ rows: number; bytes: number }> {
  const [first, second] = [await rowsRead(), await rowsRead()];
  const answer = await ask();
  const rows = (await rowsRead()) - second - (second - first);
  return { rows, bytes: JSON.stringify(answer).length };
}

const roster = (asked: Partial<RosterDto> = {}) => rosterWindow(asked as RosterDto);
const fixes = (asked: Partial<FixesDto> = {}) => listFixes(asked as FixesDto, ME);
const faults = (asked: Partial<FixesDto> = {}) => listFaults(asked as FixesDto, ME);
const CHECK = 'https.hsts';
const LARGEST = 200_000;

describe('what a window reads', () => {
  it.each<[string, number, () => Promise<unknown>]>([
    ['the roster, worst first', 30, () => roster()],
    ['the roster by name, turned round', 30, () => roster({ by: 'site', down: '1' })],
    ['the roster by score', 30, () => roster({ by: 'score' })],
    [
      'the roster of one stage, by open fixes',
      60,
      () => roster({ stage: 'launched', by: 'fixes', down: '1' }),
    ],
    ['the roster, two windows', 60, async () => roster({ after: (await roster()).next! })],
    ['the roster by words that few have', 30, () => roster({ words: 'tarn museum 1' })],
    ['sites by name', 20, () => findSites({ words: 'tarn' })],
    ['one site', 10, () => siteWithEnvironments(17)],
    ['fixes, worst first', 50, () => fixes()],
    ['fixes by site', 50, () => fixes({ sort: 'site' })],
    ['fixes by person', 50, () => fixes({ sort: 'person' })],
    ['fixes by due date', 50, () => fixes({ sort: 'due' })],
    ['mine, by due date', 50, () => fixes({ owner: 'me', sort: 'due' })],
    ['nobody’s, by site', 50, () => fixes({ owner: 'nobody', sort: 'site' })],
    ['one fault', 50, async () => fixes({ check: (await faults())[0]!.check })],
    ['one fault, nobody’s', 50, async () => fixes({ check: (await faults())[0]!.check, owner: 'nobody' })],
    ['fixes, two windows', 100, async () => fixes({ after: (await fixes()).next! })],
    ['fixes of one site', 50, () => fixes({ site: 40 })],
    ['faults', 170, () => faults()],
    ['faults that are mine', 170, () => faults({ owner: 'me' })],
    ['the ledger', 172, () => ledger(33, {})],
    ['what lies folded away in a section', 172, () => foldedLines(33, { section: 'domain' })],
    ['history', 40, () => historyOf(33)],
    ['history, two windows', 80, async () => historyOf(33, (await historyOf(33)).next!)],
    ['messages', 30, () => messagesFor(ME)],
  ])('%s: a small multiple of the %i that it shows', async (_, shown, ask) => {
    const { rows, bytes } = await cost(ask);
    // an ordered window, the rows that belong to it, and the same again where it asks for two
    expect(rows).toBeLessThanOrEqual(16 * shown);
    expect(bytes).toBeLessThan(LARGEST);
  });

  it.each<[string, () => Promise<unknown>]>([
    ['one finding in full', () => findingInFull(33, CHECK)],
    ['the manual checks that wait', () => manualChecks(33)],
    ['the sum behind a score', () => scoreSum(33)],
    ['clients', () => listClients({})],
    ['the largest windows', () => Promise.all([roster({ limit: 120 })])],
    ['the largest window of fixes', () => fixes({ limit: 200 })],
  ])('%s: an answer that a screen can take', async (_, ask) => {
    expect((await cost(ask)).bytes).toBeLessThan(LARGEST);
  });
});

describe('windows', () => {
  async function walk<R>(
    window: (after?: string) => Promise<{ rows: R[]; next: string | null }>,
  ): Promise<R[]> {
    const out: R[] = [];
    let after: string | undefined;
    do {
      const { rows, next } = await window(after);
      out.push(...rows);
      after = next ?? undefined;
    } while (after !== undefined);
    return out;
  }

  it.each(['site', 'stage', 'score', 'gate', 'fixes', 'audit'] as const)(
    'of the roster by %s, either way round, neither miss nor repeat a site',
    async (by) => {
      for (const down of [undefined, '1']) {
        const rows = await walk((after) => roster({ by, down, after, limit: 97 }));
        expect(new Set(rows.map((r) => r.id)).size, `${by} ${down}`).toBe(SITES);
        expect(rows).toHaveLength(SITES);
      }
    },
  );
  it('of the roster, worst first: what is held, then by points lost', async () => {
    const rows = await walk((after) => roster({ after, limit: 200 }));
    const gates = ['held', undefined, 'undecided', 'clear'];
    const keys = rows.map((r) => [
      gates.indexOf(r.environment?.audit?.gate),
      -(r.environment?.audit?.lost ?? 0),
    ]);
    expect(keys).toEqual([...keys].sort((a, b) => a[0]! - b[0]! || a[1]! - b[1]!));
  });
  it('what is called so comes before what is found by other words', async () => {
    // its client is called so too, and it stands first by its name
    await database().query("UPDATE site SET name = 'A loft' WHERE id = 16");
    await renameClient(6, 'Quay Boatyard 1 Trust');
    const found = (await findSites({ words: 'quay boatyard 1' })).map((s) => s.name);
    expect(found).toContain('A loft');
    expect(found[0]).toMatch(/^Quay Boatyard 1/);
  });
  it('of history, newest first, to the first of all', async () => {
    const rows = await walk((after) => historyOf(33, after));
    expect(rows).toHaveLength(AUDITS);
    expect(rows.map((r) => r.at)).toEqual(
      rows
        .map((r) => r.at)
        .sort()
        .reverse(),
    );
  });
  it('of messages', async () => {
    const rows = await walk(async (after) => {
      const { rows: read, next } = await messagesFor(ME, after === undefined ? undefined : Number(after));
      return { rows: read, next: next === null ? null : String(next) };
    });
    expect(rows).toHaveLength(200);
  });
});

/** What is counted all along, and the same counted anew. */
async function counts() {
  const kept = await select<Record<string, number | string>>(
    `SELECT whose, check_id, sites, blockers, majors, minors, failing, lost, gates FROM fault
      WHERE sites > 0 ORDER BY whose, check_id`,
  );
  const anew = await select<Record<string, number | string>>(
    `SELECT w.whose, f.check_id, COUNT(DISTINCT e.site_id) AS sites, SUM(f.severity = 'blocker') AS blockers,
      SUM(f.severity = 'major') AS majors, SUM(f.severity = 'minor') AS minors, SUM(COALESCE(d.failing, 0)) AS failing,
      SUM(ROUND(COALESCE(d.lost, 0) * 1000000)) AS lost,
      SUM(f.severity = 'blocker' AND COALESCE(d.outcome = 'failed' AND NOT d.accepted, 0)) AS gates
      FROM fix f JOIN environment e ON e.id = f.environment_id
      LEFT JOIN finding d ON d.environment_id = f.environment_id AND d.check_id = f.check_id
      JOIN (SELECT 'all' AS whose, NULL AS owner UNION ALL SELECT '0', 0 UNION ALL SELECT id, id FROM user) w
        ON w.whose = 'all' OR w.owner = COALESCE(f.owner_id, 0)
      WHERE f.state NOT IN ('verified', 'gone') GROUP BY w.whose, f.check_id ORDER BY w.whose, f.check_id`,
  );
  const stages = await select<Record<string, number | string>>(
    'SELECT stage, gate, sites FROM standing_count WHERE sites > 0 ORDER BY stage, gate',
  );
  const stagesAnew = await select<Record<string, number | string>>(
    `SELECT s.stage, t.gate, COUNT(*) AS sites FROM site s JOIN standing t ON t.site_id = s.id
      GROUP BY s.stage, t.gate ORDER BY s.stage, t.gate`,
  );
  const numbers = (rows: Record<string, number | string>[]) =>
    rows.map((r) =>
      Object.fromEntries(Object.entries(r).map(([k, v]) => [k, isNaN(Number(v)) ? v : Number(v)])),
    );
  return { kept: numbers([...kept, ...stages]), anew: numbers([...anew, ...stagesAnew]) };
}

describe('what is counted all along', () => {
  it('is what counting anew gives', async () => {
    const { kept, anew } = await counts();
    expect(kept.length).toBeGreaterThan(200);
    expect(kept).toEqual(anew);
  });
  const MARA = { id: 1, name: 'Mara Quill', email: 'mara@marram-studio.example', owner: false };
  it.each<[string, () => Promise<unknown>]>([
    ['fixes were given to somebody', async () => changeFixes({ ids: await someFixes(60), ownerId: 3 }, MARA)],
    [
      'fixes were taken from somebody',
      async () => changeFixes({ ids: await someFixes(30), ownerId: 0 }, MARA),
    ],
    [
      'fixes were set to verify',
      async () => changeFixes({ ids: await someFixes(30), state: 'to verify' }, MARA),
    ],
    ['a client was renamed', () => renameClient(5, 'Old Lamp Trust')],
    ['clients were merged', () => mergeClients(6, 7)],
    // its evidence is none that could be judged by what is wanted now
    ['a site was retired', () => changeSite(12, { stage: 'retired' }, 'Mara Quill').catch(() => undefined)],
    ['a site was deleted', () => deleteSite(14)],
  ])('stays so after %s', async (_, does) => {
    await does();
    const { kept, anew } = await counts();
    expect(kept).toEqual(anew);
  });
  it('and the lists follow: words find the new name, and no list names what is gone', async () => {
    expect((await roster({ words: 'old lamp' })).rows.map((r) => r.client)).toEqual(
      // one of its three sites was deleted
      Array(2).fill('Old Lamp Trust'),
    );
    expect((await fixes({ words: 'lamp' })).rows.every((r) => r.client === 'Old Lamp Trust')).toBe(true);
    expect((await roster()).whole).toBe(SITES - 1);
    expect((await fixes({ site: 14 })).total).toBe(0);
  });
  const someFixes = async (count: number): Promise<number[]> =>
    (await fixes({ limit: count, owner: 'nobody' })).rows.map((r) => r.id);
});
