/** Databases of earlier versions, kept as dumps: each is brought up to date, and its audits are judged again. */
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { QueryTypes, type Sequelize } from 'sequelize';
import { afterAll, describe, expect, it, vi } from 'vitest';
import { startDatabase } from '../../scripts/database.mjs';
import { DUMPS, loadDump } from '../upgrade/kept-dumps';

const FOLDER = resolve('.test/upgrade');
const parts: { stop(): Promise<void> }[] = [];

/** The server's programs, each time anew: a process has one database as long as it runs. */
async function freshServer() {
  vi.resetModules();
  return {
    ...(await import('../../server/audits/reevaluate')),
    ...(await import('../../server/reads/ledger')),
    ...(await import('../../server/platform/db/connection')),
    ...(await import('../../server/platform/db/migrate')),
    ...(await import('../../server/platform/db/models')),
    ...(await import('../../server/reads/roster')),
    ...(await import('../../server/reads/standing')),
    ...(await import('../../server/subjects')),
  };
}

afterAll(async () => {
  for (const part of parts.reverse()) await part.stop();
  rmSync(FOLDER, { recursive: true, force: true });
});

const toldOfAcceptances = (database: () => Sequelize) =>
  database().query("SELECT text FROM notification WHERE text LIKE '%no longer found as accepted%'", {
    type: QueryTypes.SELECT,
  });

describe('a database of an earlier version', () => {
  it('there is one', () => {
    expect(DUMPS.length).toBeGreaterThan(0);
  });
  it.each(DUMPS)('%s: brought up to date, its audits judged again, nothing lost', async (file) => {
    rmSync(FOLDER, { recursive: true, force: true });
    const { env } = await startDatabase(FOLDER, ['armband'], parts);
    Object.assign(process.env, env);
    loadDump(file, env as Record<string, string>);
    const server = await freshServer();
    const {
      closeDatabase,
      connectSubjects,
      database,
      fillStandings,
      ledger,
      migrate,
      reevaluate,
      rosterWindow,
      useModels,
    } = server;
    useModels();
    connectSubjects();
    const count = async (table: string): Promise<number> =>
      Number(
        (
          await database().query<{ n: number }>(`SELECT COUNT(*) AS n FROM ${table}`, {
            type: QueryTypes.SELECT,
          })
        )[0]!.n,
      );
    const TABLES = ['site', 'environment', 'audit', 'audit_evidence', 'brief', 'host_profile', 'user'];
    const before = await Promise.all(TABLES.map(count));
    await migrate();
    await fillStandings();
    expect(await Promise.all(TABLES.map(count))).toEqual(before);
    const audited = await database().query<{ id: number; score: number | null }>(
      'SELECT e.id, a.score FROM environment e JOIN audit a ON a.id = e.last_audit_id ORDER BY e.id',
      { type: QueryTypes.SELECT },
    );
    expect(audited.length).toBeGreaterThan(4);
    for (const { id } of audited) {
      await reevaluate(id, { cause: 'update', by: 'Armband' });
      const { audit, groups } = (await ledger(id, { show: 'all' }))!;
      expect(audit.result.gate).toMatch(/^(?:held|undecided|clear)$/);
      expect(groups.flatMap((g) => g.list).filter((l) => /could not finish/.test(l.found ?? ''))).toEqual([]);
    }
    // what was accepted in the words of then is accepted still, and nobody was told otherwise
    const accepted = await database().query<{ environmentId: number; checkId: string; byCode: number }>(
      `SELECT a.environment_id AS environmentId, a.check_id AS checkId, a.by_code AS byCode FROM acceptance a
        WHERE a.withdrawn_at IS NULL`,
      { type: QueryTypes.SELECT },
    );
    for (const { environmentId, checkId, byCode } of accepted) {
      expect(byCode, checkId).toBe(1);
      const [row] = await database().query<{ accepted: number; fault: string; code: string }>(
        'SELECT accepted, fault, code FROM finding WHERE environment_id = :environmentId AND check_id = :checkId',
        { type: QueryTypes.SELECT, replacements: { environmentId, checkId } },
      );
      expect(row, checkId).toMatchObject({ accepted: 1, fault: expect.stringMatching(/.{8}/) as string });
      expect(row!.code).not.toBe('');
    }
    if (file === '021-bounds.sql.gz') expect(accepted.length).toBeGreaterThan(10);
    expect(await toldOfAcceptances(database)).toEqual([]);
    const { rows } = await rosterWindow({});
    expect(rows).toHaveLength(before[0]!);
    await closeDatabase();
    for (const part of parts.splice(0).reverse()) await part.stop();
  });
});
