/** What a step of the tables' history does to what stood in them before, in a real MariaDB. */
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import mariadb, { type Connection } from 'mariadb';
import { Sequelize } from 'sequelize';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startDatabase } from '../../scripts/database.mjs';
import { up as first } from '../../server/platform/db/migrations/001-first';
import { up as access } from '../../server/platform/db/migrations/002-way-in';
import { up as handWork } from '../../server/platform/db/migrations/003-checklists-and-hand-work';
import { up as hostProfileIds } from '../../server/platform/db/migrations/004-host-profile-ids';
import { up as people } from '../../server/platform/db/migrations/005-people';
import { up as pointsLost } from '../../server/platform/db/migrations/006-points-lost';
import { up as words } from '../../server/platform/db/migrations/007-words';

const FOLDER = resolve('.test/migrations');
const parts: { stop(): Promise<void> }[] = [];
let db: Connection;
let sequelize: Sequelize;
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
  sequelize = new Sequelize(env.ARMBAND_DB_NAME!, env.ARMBAND_DB_USER!, env.ARMBAND_DB_PASSWORD!, {
    host: '127.0.0.1',
    port: Number(env.ARMBAND_DB_PORT),
    dialect: 'mariadb',
    dialectModule: mariadb,
    logging: false,
  });
});
afterAll(async () => {
  await sequelize?.close();
  await db?.end();
  for (const part of parts.reverse()) await part.stop();
});

const rows = async <R>(query: string): Promise<R[]> => [...((await db.query(query)) as R[])];

describe('host profiles get a number', () => {
  beforeAll(async () => {
    await all([...first, ...access, ...handWork]);
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

describe('weights become points, and the tables take the words of the screens', () => {
  beforeAll(async () => {
    await all(people);
    const list = (items: object[], own: object[] = []) =>
      JSON.stringify({ name: 'Ours', version: 4, items, own });
    const version = (n: number, data: string) =>
      db.query(
        "INSERT INTO checklist_version (checklist_id, version, data, created_at, saved_by) VALUES (1, ?, ?, NOW(3), 'Mara')",
        [n, data],
      );
    await version(3, list([{ check: 'domain.resolves', weight: 10 }]));
    await version(
      4,
      list(
        [
          { check: 'domain.resolves', weight: 10 },
          { check: 'https.hsts', weight: 5 },
          { check: 'https.permanent-redirects', weight: 2 },
          { check: 'https.certificate-names', weight: 7 },
          { check: 'https.hsts-safe', severity: 'blocker', weight: 10 },
          { check: 'own.ring', weight: 2 },
          { check: 'domain.own' },
        ],
        [{ id: 'own.ring', severity: 'minor' }],
      ),
    );
    await all([
      "INSERT INTO checklist (id, name, built_in) VALUES (2, 'Everything', 1), (3, 'Chosen', 0)",
      `INSERT INTO checklist_version (checklist_id, version, data, created_at, saved_by) VALUES
        (2, 1, '{"items":[{"check":"domain.resolves","weight":10}]}', NOW(3), 'Armband'),
        (3, 1, '{"items":[{"check":"domain.resolves","weight":12}]}', NOW(3), 'Mara')`,
      `INSERT INTO environment (id, site_id, name, kind, url, way_in, position) VALUES
        (1, 1, 'Live', 'live', 'https://kites.example/', 'credentials', 0)`,
      `INSERT INTO fix (id, environment_id, check_id, severity, state, places, opened_at, changed_at) VALUES
        (1, 1, 'https.hsts', 'major', 'in hand', '[]', NOW(3), NOW(3)),
        (2, 1, 'https.hsts-safe', 'major', 'said to be done', '[]', NOW(3), NOW(3)),
        (3, 1, 'domain.own', 'blocker', 'open', '[]', NOW(3), NOW(3))`,
      `INSERT INTO fix_event (fix_id, kind, by_name, at, from_state, to_state) VALUES
        (2, 'state', 'Mara', NOW(3), 'in hand', 'said to be done')`,
      "INSERT INTO user (id, name, email, password_hash, created_at) VALUES (1, 'Mara', 'mara@x.example', 'x', NOW(3))",
      `INSERT INTO notification (user_id, text, link, at) VALUES
        (1, 'x', '/sites/1?place=1&check=https.hsts', NOW(3))`,
    ]);
    await sequelize.transaction((transaction) => pointsLost(sequelize, transaction));
    await all(words);
  });

  it('a list of the agency’s own: the old default of a severity becomes the new one, a chosen weight stays', async () => {
    const versions = await rows<{ version: number; data: string; saved_by: string }>(
      'SELECT version, data, saved_by FROM checklist_version WHERE checklist_id = 1 ORDER BY version',
    );
    expect(versions.map((v) => [v.version, v.saved_by])).toEqual([
      [3, 'Mara'],
      [4, 'Mara'],
      [5, 'Armband'],
    ]);
    const { version, items } = JSON.parse(versions[2]!.data) as {
      version: number;
      items: { weight?: number }[];
    };
    expect(version).toBe(5);
    expect(items.map((i) => i.weight)).toEqual([20, 5, 1, 7, 20, 1, undefined]);
  });
  it.each([
    ['a built-in list', 2],
    ['a list with chosen weights only', 3],
  ])('%s gets no version', async (_, id) => {
    expect(await rows(`SELECT version FROM checklist_version WHERE checklist_id = ${id}`)).toHaveLength(1);
  });
  it('fixes and what happened to them take the new words for their states', async () => {
    expect(await rows('SELECT state FROM fix ORDER BY id')).toEqual([
      { state: 'in progress' },
      { state: 'to verify' },
      { state: 'open' },
    ]);
    expect(await rows('SELECT from_state, to_state FROM fix_event')).toEqual([
      { from_state: 'in progress', to_state: 'to verify' },
    ]);
  });
  it('access and links to an environment keep what they held', async () => {
    expect(await rows('SELECT access FROM environment')).toEqual([{ access: 'credentials' }]);
    expect(await rows('SELECT link FROM notification')).toEqual([
      { link: '/sites/1?environment=1&check=https.hsts' },
    ]);
  });
});
