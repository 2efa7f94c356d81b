/**
 * A private MariaDB on loopback: own data folder, own socket, free port. One running elsewhere is left alone.
 */
import { spawn, spawnSync } from 'node:child_process';
import { randomBytes } from 'node:crypto';
import { existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import net from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Missing, findCommand } from './packages.mjs';

function tryPort(port) {
  return new Promise((resolve, reject) => {
    const server = net.createServer();
    server.once('error', reject);
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(port)));
  });
}

/**
 * A port that nobody listens on: the wanted one, or one below those that the system gives to outgoing
 * connections. Rejects when the wanted one is taken.
 */
export async function freePort(wanted = 0) {
  if (wanted) return tryPort(wanted);
  for (let attempt = 1; ; attempt++) {
    try {
      return await tryPort(20_000 + Math.floor(Math.random() * 12_000));
    } catch (error) {
      if (attempt >= 50) throw error;
    }
  }
}

const isRoot = process.getuid?.() === 0;

function credentials(folder) {
  const file = join(folder, 'credentials.json');
  if (existsSync(file)) return JSON.parse(readFileSync(file, 'utf8'));
  const made = {
    user: 'armband',
    password: randomBytes(18).toString('base64url'),
    root: randomBytes(18).toString('base64url'),
  };
  writeFileSync(file, JSON.stringify(made), { mode: 0o600 });
  return made;
}

function answers(port) {
  return new Promise((resolve) => {
    const socket = net.connect(port, '127.0.0.1');
    socket.once('data', () => {
      socket.destroy();
      resolve(true);
    });
    socket.once('error', () => resolve(false));
    socket.setTimeout(1000, () => {
      socket.destroy();
      resolve(false);
    });
  });
}

const asUser = isRoot ? ['--user=root'] : [];

/** Makes the folder that the server keeps its data in, unless it is there. */
function makeData(data, temporary, installer) {
  if (existsSync(join(data, 'mysql'))) return;
  rmSync(data, { recursive: true, force: true });
  const made = spawnSync(
    installer,
    [
      '--no-defaults',
      `--datadir=${data}`,
      `--tmpdir=${temporary}`,
      '--auth-root-authentication-method=normal',
      '--skip-test-db',
      ...asUser,
    ],
    { encoding: 'utf8' },
  );
  if (made.status === 0) return;
  const why = (made.stderr || made.stdout || String(made.error)).trim().split('\n').pop();
  throw new Missing(`The database folder ${data} could not be made: ${why}`);
}

/**
 * Starts the server and makes the database and its user.
 * @param folder where data and credentials lie
 * @param parts gets what stops it, as soon as there is something to stop
 * @param wanted its port, where it must be the one it had before
 * @returns environment variables for the application, the process, and how to stop it
 */
export async function startDatabase(folder, databases = ['armband'], parts = [], wanted = 0) {
  const server = findCommand('mariadbd') ?? findCommand('mysqld');
  const installer = findCommand('mariadb-install-db') ?? findCommand('mysql_install_db');
  if (!server || !installer)
    throw new Missing('MariaDB is not there. As root run: apt-get install mariadb-server');
  mkdirSync(folder, { recursive: true, mode: 0o700 });
  const data = join(folder, 'data');
  // its own: a server that starts deletes what it takes for leftovers where another keeps temporary tables
  const temporary = join(folder, 'tmp');
  mkdirSync(temporary, { recursive: true, mode: 0o700 });
  makeData(data, temporary, installer);
  const login = credentials(folder);
  const init = join(folder, 'init.sql');
  writeFileSync(
    init,
    [
      `ALTER USER 'root'@'localhost' IDENTIFIED BY '${login.root}'`,
      ...databases.map(
        (d) => `CREATE DATABASE IF NOT EXISTS \`${d}\` CHARACTER SET utf8mb4 COLLATE utf8mb4_unicode_520_ci`,
      ),
      `CREATE USER IF NOT EXISTS '${login.user}'@'localhost' IDENTIFIED BY '${login.password}'`,
      `CREATE USER IF NOT EXISTS '${login.user}'@'127.0.0.1' IDENTIFIED BY '${login.password}'`,
      ...databases.flatMap((d) =>
        ['localhost', '127.0.0.1'].map((h) => `GRANT ALL ON \`${d}\`.* TO '${login.user}'@'${h}'`),
      ),
    ]
      .map((s) => `${s};`)
      .join('\n'),
    { mode: 0o600 },
  );
  // a socket path may be 107 bytes long at most, so it does not lie in the project
  const run = mkdtempSync(join(tmpdir(), 'armband-db-'));
  const port = await freePort(wanted);
  const child = spawn(
    server,
    [
      '--no-defaults',
      `--datadir=${data}`,
      `--socket=${join(run, 'db.sock')}`,
      `--pid-file=${join(run, 'db.pid')}`,
      `--tmpdir=${temporary}`,
      `--port=${port}`,
      '--bind-address=127.0.0.1',
      '--skip-name-resolve=OFF',
      `--init-file=${init}`,
      '--character-set-server=utf8mb4',
      '--max-allowed-packet=64M',
      '--innodb-buffer-pool-size=128M',
      '--innodb-flush-log-at-trx-commit=2',
      ...asUser,
    ],
    { stdio: ['ignore', 'ignore', 'pipe'], detached: true },
  );
  let log = '';
  child.stderr.on('data', (d) => {
    log = (log + d).slice(-4000);
  });
  let ended = false;
  const end = new Promise((resolve) => {
    child.once('exit', () => {
      ended = true;
      rmSync(run, { recursive: true, force: true });
      resolve();
    });
  });
  const stop = async () => {
    if (!ended) child.kill('SIGTERM');
    await end;
  };
  parts.push({ stop });
  const until = Date.now() + 60_000;
  while (!ended && Date.now() < until && !(await answers(port))) await new Promise((r) => setTimeout(r, 100));
  if (ended || Date.now() >= until)
    throw new Missing(
      `MariaDB did not start in ${data}: ${
        log
          .split('\n')
          .filter((l) => /ERROR/.test(l))
          .slice(-2)
          .join(' ') || log.slice(-300)
      }`,
    );
  return {
    port,
    child,
    socket: join(run, 'db.sock'),
    login,
    env: {
      ARMBAND_DB_HOST: '127.0.0.1',
      ARMBAND_DB_PORT: String(port),
      ARMBAND_DB_NAME: databases[0],
      ARMBAND_DB_USER: login.user,
      ARMBAND_DB_PASSWORD: login.password,
    },
    stop,
  };
}
