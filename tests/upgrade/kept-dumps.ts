/** Databases of earlier versions, and bringing one up to date while the process is killed after every statement. */
import { spawnSync } from 'node:child_process';
import { readdirSync, readFileSync } from 'node:fs';
import { resolve } from 'node:path';
import { gunzipSync } from 'node:zlib';
import { build } from 'esbuild';

export const DUMPS = readdirSync('tests/upgrade').filter((f) => f.endsWith('.sql.gz'));

type Settings = Record<string, string>;

const clientArgs = (env: Settings, database: string): string[] => [
  '--no-defaults',
  '--protocol=tcp',
  '--host=127.0.0.1',
  `--port=${env.ARMBAND_DB_PORT}`,
  `--user=${env.ARMBAND_DB_USER}`,
  `--password=${env.ARMBAND_DB_PASSWORD}`,
  database,
];

/** Fills a database from a kept dump. @throws Error with what the client said */
export function loadDump(file: string, env: Settings, database = env.ARMBAND_DB_NAME!): void {
  const input = gunzipSync(readFileSync(`tests/upgrade/${file}`));
  const { stderr, status } = spawnSync('mariadb', clientArgs(env, database), { input });
  if (status !== 0 || String(stderr)) throw new Error(`${file}: ${String(stderr)}`);
}

/** All tables and rows, but for what notes that statements ran and when. */
export function contentOf(env: Settings, database: string): string {
  const { stdout, stderr, status } = spawnSync(
    'mariadb-dump',
    [
      '--skip-dump-date',
      '--skip-comments',
      '--order-by-primary',
      `--ignore-table=${database}.migration_statement`,
    ].reduce((args, option) => [args[0]!, option, ...args.slice(1)], clientArgs(env, database)),
    { maxBuffer: 1 << 30 },
  );
  if (status !== 0) throw new Error(String(stderr));
  return String(stdout);
}

/** The child that dies, as one file. */
export async function dyingChild(): Promise<string> {
  const outfile = resolve('.test/migrate-and-die.mjs');
  await build({
    entryPoints: ['tests/upgrade/migrate-and-die.ts'],
    outfile,
    bundle: true,
    platform: 'node',
    format: 'esm',
    target: 'node20',
    packages: 'external',
    alias: { '#core': resolve('core') },
    logLevel: 'error',
    tsconfigRaw: { compilerOptions: { experimentalDecorators: true, useDefineForClassFields: false } },
  });
  return outfile;
}

/**
 * Upgrades a database in as many processes as there are statements: each is killed after one more.
 * @returns how many were killed
 * @throws Error when one ends in another way, or none gets any further
 */
export function upgradeKilled(child: string, env: Settings, database: string): number {
  for (let killed = 0; killed < 1000; killed++) {
    const { status, signal, stderr } = spawnSync(process.execPath, [child], {
      // the first statement is the one that was cut off before it was noted
      env: { ...process.env, ...env, ARMBAND_DB_NAME: database, ARMBAND_DIE_AFTER: killed ? '2' : '1' },
    });
    if (status === 0) return killed;
    if (signal !== 'SIGKILL') throw new Error(`after ${killed} statements: ${String(stderr).slice(0, 2000)}`);
  }
  throw new Error('it gets no further');
}

/** Upgrades a database in one go. */
export function upgradeWhole(child: string, env: Settings, database: string): void {
  const { status, stderr } = spawnSync(process.execPath, [child], {
    env: { ...process.env, ...env, ARMBAND_DB_NAME: database, ARMBAND_DIE_AFTER: '0' },
  });
  if (status !== 0) throw new Error(String(stderr).slice(0, 2000));
}
