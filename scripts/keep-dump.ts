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

interface Site {
  id: number;
  name: string;
  environments: { id: number; kind: string }[];
}
interface Fault {
  severity: string;
  outcome: string;
  fix: { id: number } | null;
}

/** What people did: faults left on purpose, one of them a blocker; a report; a launch. */
async function workOn(address: string, cookie: string): Promise<void> {
  async function call<T>(method: string, path: string, body?: object): Promise<T> {
    const answer = await fetch(`${address}${path}`, {
      method,
      headers: { cookie, 'content-type': 'application/json' },
      ...(body ? { body: JSON.stringify(body) } : {}),
    });
    const text = await answer.text();
    if (!answer.ok) throw new Error(`${method} ${path}: ${answer.status} ${text}`);
    return JSON.parse(text || 'null') as T;
  }
  for (const name of KEPT) {
    const found = await call<{ id: number }[]>('GET', `/api/sites/find?words=${encodeURIComponent(name)}`);
    const { id } = found[0]!;
    const site = await call<Site>('GET', `/api/sites/${id}`);
    for (const { id: environmentId } of site.environments) {
      const { groups } = await call<{ groups: { list: Fault[] }[] }>(
        'GET',
        `/api/environments/${environmentId}/ledger?show=faults`,
      );
      const faults = groups.flatMap((g) => g.list).filter((f) => f.outcome === 'failed' && f.fix);
      const left = [
        ...faults.filter((f) => f.severity === 'blocker').slice(0, 1),
        ...faults.filter((f) => f.severity !== 'blocker').slice(0, 3),
      ];
      for (const f of left)
        await call('POST', `/api/fixes/${f.fix!.id}/accept`, { reason: 'agreed', until: '2099-01-01' });
    }
    const live = site.environments.find((e) => e.kind === 'live') ?? site.environments[0]!;
    await call('POST', `/api/sites/${id}/report/publish`, { environmentId: live.id });
    if (!(await call('GET', `/api/sites/${id}/sheet`)))
      await call('POST', `/api/sites/${id}/sheet`, { plannedAt: '2027-01-04T08:00:00Z' });
  }
}

const stack = await startStack({ folder: FOLDER });
try {
  await workOn(stack.address, await waitForAudits(stack.address));
} finally {
  await stack.stop();
}
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
  // the second person's yes, which counts once it is judged again
  await db.query(
    `UPDATE acceptance a JOIN user u ON u.id <> a.by_id SET a.seconded_by_id = u.id WHERE a.seconded_by_id IS NULL`,
  );
  for (const table of [
    'session',
    'change_event',
    'event_delivery',
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
