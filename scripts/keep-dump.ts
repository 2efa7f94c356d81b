/**
 * `npm run keep-dump`: keeps a small database of this version, as the demo fills it, for the upgrade test of all
 * later versions. Run it once before a version goes out; what is kept is never made anew.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, writeFileSync } from 'node:fs';
import { gzipSync } from 'node:zlib';
import { resolve } from 'node:path';
import mariadb from 'mariadb';
import { startDatabase } from './database.mjs';
import { startStack, waitForAudits } from './stack.mjs';

/** Few sites, with all kinds of environment among them. */
const KEPT = ['Tarn Planetarium', 'Lifeboat Loft', 'Windrow Kite Works', 'Firth Tram Society'];
const FOLDER = '.test/dump';

const stack = await startStack({ folder: FOLDER });
await waitForAudits(stack.address);
await stack.stop();
const parts: { stop(): Promise<void> }[] = [];
const { env, port } = await startDatabase(resolve(FOLDER, 'mariadb'), ['armband'], parts);
try {
  const db = await mariadb.createConnection({
    host: '127.0.0.1',
    port,
    user: env.ARMBAND_DB_USER,
    password: env.ARMBAND_DB_PASSWORD,
    database: env.ARMBAND_DB_NAME,
  });
  await db.query(`DELETE FROM site WHERE name NOT IN (${KEPT.map(() => '?').join(', ')})`, KEPT);
  for (const table of [
    'session',
    'change_event',
    'job',
    'sign_in_tally',
    'host_permit',
    'host_gate',
    'standing',
    'standing_count',
    'fault',
  ])
    await db.query(`DELETE FROM ${table}`);
  const [last] = (await db.query('SELECT name FROM migration ORDER BY name DESC LIMIT 1')) as {
    name: string;
  }[];
  await db.end();
  const file = `tests/upgrade/${last!.name}.sql.gz`;
  if (existsSync(file)) throw new Error(`${file} is kept already`);
  const dump = spawnSync(
    'mariadb-dump',
    [
      '--no-defaults',
      '--protocol=tcp',
      '--host=127.0.0.1',
      `--port=${port}`,
      `--user=${env.ARMBAND_DB_USER}`,
      `--password=${env.ARMBAND_DB_PASSWORD}`,
      '--single-transaction',
      '--skip-dump-date',
      '--hex-blob',
      env.ARMBAND_DB_NAME!,
    ],
    { maxBuffer: 256 * 1024 * 1024 },
  );
  if (dump.status !== 0) throw new Error(String(dump.stderr));
  writeFileSync(file, gzipSync(dump.stdout, { level: 9 }));
  process.stdout.write(`${file}: ${Math.round(dump.stdout.length / 1000)} kB before packing\n`);
} finally {
  for (const part of parts.reverse()) await part.stop();
}
