/**
 * `npm test`: installs what is missing, then lint with the dependency rules, types, unit, integration and
 * end-to-end tests.
 */
import { spawn, spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { ensureBuild } from './build.mjs';
import { ensureDebianPackages, ensureNodePackages, Missing, needSpace, ROOT } from './packages.mjs';

const say = (text) => process.stdout.write(`${text}\n`);
const ROOMS = ['core', 'probe', 'net', 'server', 'cli', 'scripts', 'tests'];
const results = join(ROOT, 'test-results');
const local = (name) => join(ROOT, 'node_modules', '.bin', name);
let passed = 0,
  failed = 0;

function run(name, command, args, env = {}) {
  say(`\n== ${name}`);
  const started = Date.now();
  const done = spawnSync(command, args, {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', NO_COLOR: '1', FORCE_COLOR: '0', ...env },
  });
  say(
    `-- ${name}: ${done.status === 0 ? 'good' : `failed (${done.status ?? done.signal ?? done.error})`}, ${Math.round((Date.now() - started) / 1000)} s`,
  );
  return done.status === 0;
}

function step(name, command, args) {
  if (run(name, command, args)) passed++;
  else failed++;
}

/** Steps that do not touch each other, at once; what each says is shown when it has ended. */
async function together(steps) {
  await Promise.all(
    steps.map(
      ([name, command, args]) =>
        new Promise((resolve) => {
          const started = Date.now();
          const child = spawn(command, args, {
            cwd: ROOT,
            stdio: ['ignore', 'pipe', 'pipe'],
            env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', NO_COLOR: '1', FORCE_COLOR: '0' },
          });
          let out = '';
          child.stdout.on('data', (d) => {
            out += d;
          });
          child.stderr.on('data', (d) => {
            out += d;
          });
          child.once('error', (error) => {
            out += error.message;
          });
          child.once('close', (code) => {
            say(
              `\n== ${name}\n${out.trim()}\n-- ${name}: ${code === 0 ? 'good' : `failed (${code})`}, ${Math.round((Date.now() - started) / 1000)} s`,
            );
            if (code === 0) passed++;
            else failed++;
            resolve();
          });
        }),
    ),
  );
}

/** Counts a runner's own results; a run that left none counts as one failure. */
function counted(name, file, command, args, read) {
  rmSync(file, { force: true });
  const good = run(name, command, args);
  if (!existsSync(file)) {
    failed++;
    return;
  }
  const [ok, bad] = read(JSON.parse(readFileSync(file, 'utf8')));
  passed += ok;
  failed += bad || (good ? 0 : 1);
}

const vitest = (r) => [r.numPassedTests, r.numFailedTests];
const vitestArgs = (project, file) => [
  'run',
  '--project',
  project,
  '--reporter=default',
  '--reporter=json',
  `--outputFile.json=${file}`,
];

try {
  needSpace(500);
  ensureNodePackages();
  ensureDebianPackages({
    mariadbd: 'mariadb-server',
    'mariadb-install-db': 'mariadb-server',
    mariadb: 'mariadb-client',
    'redis-server': 'redis-server',
    chromium: 'chromium',
    dig: 'dnsutils',
    openssl: 'openssl',
    curl: 'curl',
    named: 'bind9',
    'dnssec-signzone': 'bind9-utils',
    unbound: 'unbound',
    nginx: 'nginx-light',
    apache2: 'apache2',
  });
  mkdirSync(results, { recursive: true });
  step('Prepare', local('nuxt'), ['prepare']);
  await together([
    ['Lint and dependency rules', local('eslint'), ['.', '--max-warnings=0']],
    ['Circles and layers', local('depcruise'), ['--config', '.dependency-cruiser.mjs', ...ROOMS]],
    ['Formatting', local('prettier'), ['--check', '--log-level=warn', '.']],
    ['Types of the application', local('vue-tsc'), ['-b', '--noEmit']],
    ['Types of scripts and tests', local('tsc'), ['--noEmit', '-p', 'tsconfig.scripts.json']],
  ]);
  const unit = join(results, 'unit.json'),
    faults = join(results, 'faults.json'),
    real = join(results, 'real-servers.json'),
    integration = join(results, 'integration.json'),
    e2e = join(results, 'e2e.json');
  counted('Unit tests', unit, local('vitest'), vitestArgs('unit', unit), vitest);
  counted('Real servers', real, local('vitest'), vitestArgs('real-servers', real), vitest);
  counted('Planted faults', faults, local('vitest'), vitestArgs('faults', faults), vitest);
  ensureBuild(say);
  counted('Integration tests', integration, local('vitest'), vitestArgs('integration', integration), vitest);
  counted('End-to-end tests', e2e, local('playwright'), ['test'], (r) => [
    r.stats.expected,
    r.stats.unexpected + r.stats.flaky,
  ]);
} catch (error) {
  process.stderr.write(`${error instanceof Missing ? error.message : error.stack}\n`);
  failed++;
}
say(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed ? 1 : 0;
