/** Builds the application when its sources have changed. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, statSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { Missing, ROOT } from './packages.mjs';

const SOURCES = [
  'app',
  'core',
  'probe',
  'server',
  'public',
  'scripts/worker-bundles.mjs',
  'nuxt.config.ts',
  'package-lock.json',
];

function* files(path) {
  if (!existsSync(path)) return;
  if (!statSync(path).isDirectory()) {
    yield path;
    return;
  }
  for (const name of readdirSync(path).sort()) yield* files(join(path, name));
}

/** One hash over all sources that end up in the build. @param more folders beside them */
export function sourceHash(more = []) {
  const hash = createHash('sha256');
  for (const source of [...SOURCES, ...more])
    for (const file of files(join(ROOT, source)))
      if (!file.endsWith('.test.ts')) hash.update(file.slice(ROOT.length)).update(readFileSync(file));
  return hash.digest('hex');
}

/** @returns whether a build was needed */
export function ensureBuild(say) {
  const mark = join(ROOT, '.output', 'armband-sources');
  const hash = sourceHash();
  if (existsSync(mark) && readFileSync(mark, 'utf8') === hash) return false;
  say('Building the application (about a minute) …');
  const done = spawnSync(process.execPath, [join(ROOT, 'node_modules', 'nuxt', 'bin', 'nuxt.mjs'), 'build'], {
    cwd: ROOT,
    encoding: 'utf8',
    // whoever asks may be a test, which is no reason to build another application
    env: {
      ...process.env,
      NODE_ENV: 'production',
      NUXT_TELEMETRY_DISABLED: '1',
      CI: '1',
      // apart from what types and lint read meanwhile
      ARMBAND_BUILD_DIR: '.build/nuxt',
    },
    maxBuffer: 64 * 1024 * 1024,
  });
  if (done.status !== 0) throw new Missing(`The build failed:\n${(done.stdout + done.stderr).slice(-3000)}`);
  writeFileSync(mark, hash);
  return true;
}

if (process.argv[1] === fileURLToPath(import.meta.url))
  ensureBuild((text) => process.stdout.write(`${text}\n`));
