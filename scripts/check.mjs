/**
 * `npm run check`: what a change can touch, in minutes: format, lint, types, import rules, the unit tests that reach the
 * changed files, and the planted faults of changed checks. With caches, for work in between; `npm test` runs everything.
 */
import { spawnSync } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ROOT } from './packages.mjs';
import { TYPES_OF_APPLICATION, TYPES_OF_THE_REST } from './types.mjs';

const say = (text) => process.stdout.write(`${text}\n`);
const local = (name) => join(ROOT, 'node_modules', '.bin', name);
const CACHE = 'node_modules/.cache/check';
const git = (...args) =>
  spawnSync('git', args, { cwd: ROOT, encoding: 'utf8' }).stdout.split('\n').filter(Boolean);

/** Files that differ from a commit, and new ones. */
export const changedSince = (commit) =>
  [
    ...new Set([...git('diff', '--name-only', commit), ...git('ls-files', '-o', '--exclude-standard')]),
  ].filter((f) => existsSync(join(ROOT, f)));

/** The planted faults of checks whose files changed, by the table of the practice net. */
export function faultsOf(files, table) {
  const checks = new Set(
    files.map((file) => file.replace(/^core\/checks\/catalogue\/(\w+)\/([\w-]+?)(?:\.test)?\.ts$/, '$1.$2')),
  );
  const rows = table.matchAll(/\bf\(\s*'([\w-]+)',\s*'([\w.-]+)'/g);
  return [...rows].filter(([, , check]) => checks.has(check)).map(([, fault]) => fault);
}

/** @returns whether it went well */
function run(name, command, args) {
  const began = performance.now();
  const { status } = spawnSync(command, args, { cwd: ROOT, stdio: 'inherit' });
  say(`-- ${name}: ${status === 0 ? 'good' : 'failed'}, ${Math.round((performance.now() - began) / 1000)} s`);
  return status === 0;
}

function main() {
  const files = changedSince(process.argv[2] ?? 'HEAD');
  if (!files.length) {
    say('Nothing has changed.');
    return true;
  }
  const of = (pattern) => files.filter((f) => pattern.test(f));
  const code = of(/\.(?:ts|mts|vue|mjs)$/);
  const formatted = of(/\.(?:ts|mts|vue|mjs|json|md|css|yaml|yml)$/);
  const inApplication = of(/^(?:app|server)\//).length > 0;
  const tested = of(/^(?:core|probe|net|cli|server|app|scripts)\/.*\.(?:ts|mjs)$/);
  const faults = faultsOf(files, readFileSync(join(ROOT, 'net/faults.ts'), 'utf8'));
  const steps = [
    formatted.length && [
      'Format',
      local('prettier'),
      ['--write', '--ignore-unknown', '--log-level=warn', ...formatted],
    ],
    code.length && [
      'Lint',
      local('eslint'),
      ['--max-warnings=0', '--cache', '--cache-location', `${CACHE}/eslint/`, ...code],
    ],
    [
      'Import rules',
      local('depcruise'),
      [
        '--config',
        '.dependency-cruiser.mjs',
        '--cache',
        `${CACHE}/depcruise`,
        'core',
        'probe',
        'net',
        'server',
        'cli',
        'scripts',
        'tests',
      ],
    ],
    TYPES_OF_THE_REST,
    inApplication && TYPES_OF_APPLICATION,
    tested.length && [
      'Unit tests that reach it',
      local('vitest'),
      ['related', '--run', '--project', 'unit', '--passWithNoTests', ...tested],
    ],
    faults.length && [
      'Planted faults',
      local('vitest'),
      ['run', '--project', 'faults', '-t', `^(?:.*\\s)?(?:${faults.join('|')}) is found`],
    ],
  ].filter(Boolean);
  // the first that fails ends it: what comes later would say the same again
  return steps.every(([name, command, args]) => run(name, command, args));
}

if (process.argv[1] === join(ROOT, 'scripts/check.mjs')) process.exitCode = main() ? 0 : 1;
