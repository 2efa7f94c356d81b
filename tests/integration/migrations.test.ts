/** What a step of the tables' history does to what stood in them before, in a real MariaDB. */
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import mariadb, { type Connection } from 'mariadb';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startDatabase } from '../../scripts/database.mjs';
import { up as first } from '../../server/platform/db/migrations/001-first';
import { up as wayIn } from '../../server/platform/db/migrations/002-way-in';
import { up as handWork } from '../../server/platform/db/migrations/003-checklists-and-hand-work';
import { up as hostProfileIds } from '../../server/platform/db/migrations/004-host-profile-ids';

const FOLDER = resolve('.test/migrations');
const parts: { stop(): Promise<void> }[] = [];
let db: Connection;
async function all(statements: readonly string[]): Promise<void> {
  for (const statement of statements) await db.query(statement);
}
beforeAll(async () => {
  rmSync(FOLDER, { recursive: true, force: true });
  const { env } = await startDatabase(FOLDER, ['armband'], parts);
  db = await mariadb.createConnection({
    host: '127.0.0.1',
    port: Number(env.ARMBAND_DB_PORT),
    user: env.ARMBAND_DB_USER,
    password: env.ARMBAND_DB_PASSWORD,
    database: env.ARMBAND_DB_NAME,
  });
});
afterAll(async () => {
  await db?.end();
  for (const part of parts.reverse()) await part.stop();
});

describe('host profiles get a number', () => {
  beforeAll(async () => {
    await all([...first, ...wayIn, ...handWork]);
    await all([
      "INSERT INTO client (id, name) VALUES (1, 'Kites')",
      `INSERT INTO host_profile (name, version, data, created_at, saved_by) VALUES
        ('Fennel', 1, '{"name":"Fennel"}', NOW(3), 'Mara'),
        ('Fennel', 2, '{"name":"Fennel","badge":["x"]}', NOW(3), 'Joss'),
        ('Sorrel', 1, '{"name":"Sorrel"}', NOW(3), 'Mara')`,
      `INSERT INTO site (id, client_id, name, stage, host_profile, created_at) VALUES
        (1, 1, 'With', 'building', 'Fennel', NOW(3)),
        (2, 1, 'Unknown', 'building', 'Gone Hosting', NOW(3)),
        (3, 1, 'Without', 'building', NULL, NOW(3))`,
      "INSERT INTO checklist (id, name) VALUES (1, 'Ours')",
      `INSERT INTO checklist_assignment (checklist_id, kind, target) VALUES
        (1, 'host', 'Fennel'), (1, 'host', 'Never there'), (1, 'site', '1')`,
    ]);
    await all(hostProfileIds);
  });
  const rows = async <R>(query: string): Promise<R[]> => [...((await db.query(query)) as R[])];

  it('sites keep theirs, also one that nobody had written down', async () => {
    expect(
      await rows(
        'SELECT s.name, p.name AS host FROM site s LEFT JOIN host_profile p ON p.id = s.host_profile_id ORDER BY s.id',
      ),
    ).toEqual([
      { name: 'With', host: 'Fennel' },
      { name: 'Unknown', host: 'Gone Hosting' },
      { name: 'Without', host: null },
    ]);
  });
  it('versions keep their numbers, texts and who saved them', async () => {
    expect(
      await rows(
        'SELECT p.name, v.version, v.data, v.saved_by FROM host_profile_version v JOIN host_profile p ON p.id = v.host_profile_id ORDER BY p.name, v.version',
      ),
    ).toMatchObject([
      { name: 'Fennel', version: 1, data: '{"name":"Fennel"}', saved_by: 'Mara' },
      { name: 'Fennel', version: 2, data: '{"name":"Fennel","badge":["x"]}', saved_by: 'Joss' },
      { name: 'Gone Hosting', version: 1, saved_by: 'Armband' },
      { name: 'Sorrel', version: 1, data: '{"name":"Sorrel"}', saved_by: 'Mara' },
    ]);
  });
  it('assignments follow; one to a host that never was is dropped', async () => {
    expect(
      await rows(
        "SELECT a.kind, COALESCE(p.name, a.target) AS target FROM checklist_assignment a LEFT JOIN host_profile p ON a.kind = 'host' AND p.id = a.target ORDER BY a.kind",
      ),
    ).toEqual([
      { kind: 'host', target: 'Fennel' },
      { kind: 'site', target: '1' },
    ]);
  });
});
