/**
 * Checks all types: the application by vue-tsc, since only that reads components; everything else by TypeScript's
 * native compiler, which takes a tenth of the time.
 */
import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { ROOT } from './packages.mjs';

const NATIVE = join(ROOT, 'node_modules', 'typescript-native', 'bin', 'tsc');
const PROJECTS = [
  '.nuxt/tsconfig.server.json',
  '.nuxt/tsconfig.shared.json',
  '.nuxt/tsconfig.node.json',
  'tsconfig.scripts.json',
];

/** Steps as name, command and arguments. `nuxt prepare` has to have run. */
export const TYPES_OF_APPLICATION = [
  'Types of the application',
  join(ROOT, 'node_modules', '.bin', 'vue-tsc'),
  ['--noEmit', '-p', '.nuxt/tsconfig.app.json'],
];
export const TYPES_OF_THE_REST = [
  'Types of server, scripts and tests',
  process.execPath,
  [fileURLToPath(import.meta.url), '--rest'],
];

const run = (command, args) => spawnSync(command, args, { cwd: ROOT, stdio: 'inherit' }).status === 0;

if (process.argv[1] === fileURLToPath(import.meta.url)) {
  const results = PROJECTS.map((project) => run(NATIVE, ['--noEmit', '-p', project]));
  if (process.argv[2] !== '--rest') results.push(run(TYPES_OF_APPLICATION[1], TYPES_OF_APPLICATION[2]));
  process.exitCode = results.every(Boolean) ? 0 : 1;
}
