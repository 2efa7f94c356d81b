/**
 * The whole demo as processes: database, practice net, application. Used by the demo, the screenshots and the
 * end-to-end tests.
 */
import { spawn } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join, resolve as absolute } from 'node:path';
import { freePort, startDatabase } from './database.mjs';
import { Missing, ROOT } from './packages.mjs';

export const DEMO_LOGIN = { email: 'mara@marram-studio.example', password: 'marram-demo' };

function secret(folder) {
  const file = join(folder, 'session-secret');
  if (!existsSync(file)) writeFileSync(file, randomBytes(32).toString('hex'), { mode: 0o600 });
  return readFileSync(file, 'utf8');
}

/** Ends parts in the order opposite to that of their start. */
export async function stopParts(parts) {
  while (parts.length) await parts.pop().stop();
}

function ended(child) {
  return child.exitCode !== null || child.signalCode !== null;
}

async function endProcess(child, signal = 'SIGTERM') {
  if (ended(child)) return;
  const gone = new Promise((r) => child.once('exit', r));
  child.kill(signal);
  const timer = setTimeout(() => child.kill('SIGKILL'), 5000);
  await gone;
  clearTimeout(timer);
}

/** Ends what an earlier run left behind when it was killed, by the process ids it wrote down. */
function endLeftovers(folder) {
  const file = join(folder, 'pids.json');
  if (!existsSync(file)) return;
  for (const { pid, mark } of JSON.parse(readFileSync(file, 'utf8'))) {
    try {
      if (readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes(mark)) process.kill(pid, 'SIGTERM');
    } catch {
      /* it has ended */
    }
  }
  rmSync(file, { force: true });
}

/** The stand-in network, and where it is to be found. */
async function startPractice(folder, parts) {
  const practice = spawn(process.execPath, ['--import', 'tsx/esm', join(ROOT, 'net', 'start.ts'), folder], {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'inherit', 'ipc'],
    detached: true,
    env: { ...process.env, TSX_TSCONFIG_PATH: join(ROOT, 'tsconfig.scripts.json') },
  });
  parts.push({ stop: () => endProcess(practice) });
  await new Promise((resolve, reject) => {
    practice.stdout.on('data', (d) => {
      if (String(d).includes('ready')) resolve();
    });
    practice.once('exit', () =>
      reject(new Missing('The practice net did not start; the lines above say why.')),
    );
  });
  return { practice, net: JSON.parse(readFileSync(join(folder, 'net.json'), 'utf8')) };
}

/** The wanted port, or the next free one when it is taken. */
async function portFor(wanted, strict, say) {
  try {
    return await freePort(wanted);
  } catch {
    if (strict) throw new Missing(`Port ${wanted} is taken. Give another one with --port.`);
    const port = await freePort();
    say(`Port ${wanted} is taken, so port ${port} is used.`);
    return port;
  }
}

/** The application itself: the build, or the sources where they are watched. */
function startApplication({ port, watch, env, parts }) {
  const program = watch
    ? [join(ROOT, 'node_modules', 'nuxt', 'bin', 'nuxt.mjs'), 'dev']
    : ['--enable-source-maps', join(ROOT, '.output', 'server', 'index.mjs')];
  const app = spawn(process.execPath, program, {
    cwd: ROOT,
    stdio: ['ignore', 'pipe', 'pipe'],
    detached: true,
    env: {
      ...process.env,
      NODE_ENV: watch ? 'development' : 'production',
      HOST: '127.0.0.1',
      PORT: String(port),
      NITRO_HOST: '127.0.0.1',
      NITRO_PORT: String(port),
      ARMBAND_FIRST_PASSWORD: DEMO_LOGIN.password,
      ...env,
    },
  });
  parts.push({ stop: () => endProcess(app) });
  let log = '';
  const listen = (d) => {
    log = (log + d).slice(-6000);
    if (watch || process.env.ARMBAND_LOG) process.stderr.write(d);
  };
  app.stdout.on('data', listen);
  app.stderr.on('data', listen);
  return { app, log: () => log };
}

/** Waits until the application answers. */
async function untilHealthy(address, app, log) {
  for (;;) {
    if (ended(app)) throw new Missing(`The application did not start:\n${log()}`);
    const answer = await fetch(`${address}/api/health`).catch(() => null);
    if (answer?.ok) return;
    // it ends by itself where it cannot start
    await new Promise((r) => setTimeout(r, 100));
  }
}

/**
 * Starts everything.
 * @param options.folder where data, switches and secrets lie
 * @param options.port wanted port of the application; the next free one when it is taken, unless `strict`
 * @param options.watch runs the sources, and follows them, in place of the build
 * @param options.parts what has been started so far, for a caller that may have to stop before all is up
 */
export async function startStack({
  folder: place,
  port: wanted = 0,
  strict = false,
  watch = false,
  say = () => {},
  env = {},
  parts = [],
}) {
  const folder = absolute(ROOT, place);
  mkdirSync(folder, { recursive: true });
  endLeftovers(folder);
  const stop = async () => {
    await stopParts(parts);
    rmSync(join(folder, 'pids.json'), { force: true });
  };
  try {
    say('Starting MariaDB …');
    const database = await startDatabase(join(folder, 'mariadb'), ['armband'], parts);
    say('Starting the practice net …');
    const { practice, net } = await startPractice(join(folder, 'net'), parts);
    const port = await portFor(wanted, strict, say);
    say('Starting the application …');
    // what a worker needs to be told too
    const settings = {
      ...database.env,
      NUXT_SESSION_PASSWORD: secret(folder),
      ARMBAND_PRACTICE_NET: net.control,
      ARMBAND_RESOLVERS: net.resolver,
      ARMBAND_WATCH_RESOLVERS: net.caches.join(','),
      ARMBAND_MAP: net.map.join(','),
      ARMBAND_CA: net.ca,
      ARMBAND_RDAP_BOOTSTRAP: net.bootstrap,
      ARMBAND_BROWSER_KEYS: net.key,
      // the home page and the required ones: a demo is to be quick
      ARMBAND_RENDER_PAGES: '0',
      // a browser in each audit would take the tests most of their time
      ARMBAND_RENDER: 'asked',
      ...env,
    };
    const { app, log } = startApplication({ port, watch, parts, env: settings });
    writeFileSync(
      join(folder, 'pids.json'),
      JSON.stringify([
        { pid: database.child.pid, mark: 'mariadb' },
        { pid: practice.pid, mark: 'net/start.ts' },
        { pid: app.pid, mark: watch ? 'nuxt' : '.output/server' },
      ]),
    );
    const address = `http://127.0.0.1:${port}`;
    await untilHealthy(address, app, log);
    return { address, port, net, settings, database, app, practice, log, stop };
  } catch (error) {
    await stop();
    throw error;
  }
}

/** Signs in and waits until no audit is running. @param report called with how many are left */
export async function waitForAudits(address, report = () => {}) {
  const signedIn = await fetch(`${address}/api/sign-in`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(DEMO_LOGIN),
  });
  if (!signedIn.ok) throw new Missing(`Signing in failed: ${await signedIn.text()}`);
  // not the cookie by which a browser is known again: nobody types a password here
  const cookie = signedIn.headers
    .getSetCookie()
    .map((c) => c.split(';')[0])
    .find((c) => c.startsWith('armband-session='));
  for (let last = -1; ;) {
    const left = (await (await fetch(`${address}/api/audits/running`, { headers: { cookie } })).json())
      .length;
    if (left !== last) report((last = left));
    if (!left) return cookie;
    await new Promise((r) => setTimeout(r, 250));
  }
}
