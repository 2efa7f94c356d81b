/**
 * `npm test`: installs what is missing, then lint with the dependency rules, types, unit, integration and
 * end-to-end tests.
 */
import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { availableParallelism } from 'node:os';
import { join } from 'node:path';
import { ensureDebianPackages, ensureNodePackages, Missing, needSpace, ROOT } from './packages.mjs';
import { TYPES_OF_APPLICATION, TYPES_OF_THE_REST } from './types.mjs';

const say = (text) => process.stdout.write(`${text}\n`);
const ROOMS = ['core', 'probe', 'net', 'server', 'cli', 'scripts', 'tests'];
const results = join(ROOT, 'test-results');
const local = (name) => join(ROOT, 'node_modules', '.bin', name);
let passed = 0,
  failed = 0;
/** How long each step took, and how many cases it has, for the end. */
const took = [];

/**
 * Runs a command to its end.
 * @param isAlone what it says is shown at once; otherwise when it has ended, whole
 * @returns whether it went well
 */
async function run([name, command, args], isAlone = false) {
  if (isAlone) say(`\n== ${name}`);
  const started = Date.now();
  const child = spawn(command, args, {
    cwd: ROOT,
    stdio: ['ignore', ...(isAlone ? ['inherit', 'inherit'] : ['pipe', 'pipe'])],
    env: { ...process.env, NUXT_TELEMETRY_DISABLED: '1', NO_COLOR: '1', FORCE_COLOR: '0' },
  });
  let said = '';
  for (const stream of [child.stdout, child.stderr])
    stream?.on('data', (d) => {
      said += d;
    });
  const code = await new Promise((resolve) => {
    child.once('error', (error) => resolve(error.message));
    child.once('close', (status, signal) => resolve(status ?? signal));
  });
  if (!isAlone) say(`\n== ${name}\n${said.trim()}`);
  const seconds = Math.round((Date.now() - started) / 1000);
  took.push({ name, seconds });
  say(`-- ${name}: ${code === 0 ? 'good' : `failed (${code})`}, ${seconds} s`);
  return code === 0;
}

/** Steps that do not touch each other, as many at once as there are processors; each counts as one. */
async function together(...steps) {
  const take = async () => {
    for (let step = steps.shift(); step; step = steps.shift())
      if (await run(step)) passed++;
      else failed++;
  };
  await Promise.all(Array.from({ length: Math.max(2, availableParallelism()) }, take));
}

/** Counts a runner's own results; a run that left none counts as one failure. */
async function counted(step, file, read) {
  rmSync(file, { force: true });
  const good = await run(step, true);
  if (!existsSync(file)) {
    failed++;
    return;
  }
  const [ok, bad] = read(JSON.parse(readFileSync(file, 'utf8')));
  passed += ok;
  failed += bad || (good ? 0 : 1);
  took.at(-1).cases = ok + bad;
}

const ofVitest = (r) => [r.numPassedTests, r.numFailedTests];
const ofPlaywright = (r) => [r.stats.expected, r.stats.unexpected + r.stats.flaky];
function vitest(name, project) {
  const file = join(results, `${project}.json`);
  const reporters = ['--reporter=default', '--reporter=json', `--outputFile.json=${file}`];
  return counted([name, local('vitest'), ['run', '--project', project, ...reporters]], file, ofVitest);
}

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
    'php-fpm8.2': 'php8.2-fpm',
  });
  mkdirSync(results, { recursive: true });
  await together(['Prepare', local('nuxt'), ['prepare']]);
  // the longest first
  await together(
    ['Build', process.execPath, [join(ROOT, 'scripts', 'build.mjs')]],
    TYPES_OF_APPLICATION,
    ['Lint and dependency rules', local('eslint'), ['.', '--max-warnings=0']],
    ['Formatting', local('prettier'), ['--check', '--log-level=warn', '.']],
    TYPES_OF_THE_REST,
    ['Circles and layers', local('depcruise'), ['--config', '.dependency-cruiser.mjs', ...ROOMS]],
    ['Unused files, exports and dependencies', local('knip'), ['--no-progress']],
  );
  await vitest('Unit tests', 'unit');
  await vitest('Real servers', 'real-servers');
  await vitest('Planted faults', 'faults');
  await vitest('Integration tests', 'integration');
  const e2e = join(results, 'e2e.json');
  await counted(['End-to-end tests', local('playwright'), ['test']], e2e, ofPlaywright);
} catch (error) {
  process.stderr.write(`${error instanceof Missing ? error.message : error.stack}\n`);
  failed++;
}
say('');
for (const { name, seconds, cases } of took)
  say(`${String(seconds).padStart(5)} s  ${name}${cases === undefined ? '' : `, ${cases} cases`}`);
say(`\n${passed} passed, ${failed} failed`);
process.exitCode = failed ? 1 : 0;
