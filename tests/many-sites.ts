/**
 * The database of an agency with very many sites: filled once, then copied by each test that begins with one.
 */
import { spawnSync } from 'node:child_process';
import { cpSync, existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { sourceHash } from '../scripts/build.mjs';

const TEMPLATES = '.test/many-templates';
/** ARMBAND_MANY gives the number of sites; the benchmarks take 5,000. */
export const SITES = Number(process.env.ARMBAND_MANY ?? 1500);
/** Of each environment. */
export const AUDITS = 60;

/**
 * Puts the database into a folder, in place of what is there.
 * @param folder where MariaDB's data and credentials are to lie
 * @throws when filling fails
 */
export function copyManySites(folder: string): void {
  const from = join(TEMPLATES, `${sourceHash(['scripts']).slice(0, 16)}-${SITES}`);
  if (!existsSync(join(from, 'filled'))) {
    rmSync(TEMPLATES, { recursive: true, force: true });
    const program = ['scripts/fill.ts', '--folder', from, '--sites', `${SITES}`, '--audits', `${AUDITS}`];
    const filled = spawnSync(process.execPath, ['--import', 'tsx/esm', ...program], {
      stdio: ['ignore', 'ignore', 'inherit'],
      env: { ...process.env, TSX_TSCONFIG_PATH: 'tsconfig.scripts.json' },
    });
    if (filled.status !== 0) throw new Error('The database of many sites could not be filled.');
  }
  rmSync(folder, { recursive: true, force: true });
  cpSync(from, folder, { recursive: true });
}
