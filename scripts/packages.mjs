/** What a fresh machine lacks: npm packages and Debian's. Plain Node, since nothing is installed yet. */
import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readFileSync, statfsSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = dirname(dirname(fileURLToPath(import.meta.url)));
const say = (text) => process.stdout.write(`${text}\n`);

/** A failure that the user can do something about. */
export class Missing extends Error {}

const PLACES = ['/usr/sbin', '/usr/bin', '/usr/local/bin', '/usr/local/sbin', '/sbin', '/bin'];

/** Full path of a command, or undefined. */
export function findCommand(name) {
  return [...(process.env.PATH ?? '').split(':'), ...PLACES]
    .map((p) => join(p, name))
    .find((p) => existsSync(p));
}

/** At least so many megabytes must be free where the project lies. */
export function needSpace(megabytes) {
  const { bavail, bsize } = statfsSync(ROOT);
  const free = Math.floor((bavail * bsize) / 1_000_000);
  if (free < megabytes)
    throw new Missing(
      `Only ${free} MB are free in ${ROOT}; about ${megabytes} MB are needed. Free some space and start again.`,
    );
}

/** Installs the npm packages of the lockfile unless they are there already. */
export function ensureNodePackages() {
  const lock = readFileSync(join(ROOT, 'package-lock.json'));
  const mark = join(ROOT, 'node_modules', '.armband-lock');
  const hash = createHash('sha256').update(lock).digest('hex');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === hash) return;
  needSpace(1500);
  say('Installing npm packages (about a minute) …');
  const done = spawnSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: ROOT,
    stdio: ['ignore', 'inherit', 'inherit'],
  });
  if (done.status !== 0)
    throw new Missing(
      'The npm packages could not be installed. The lines above say why; mostly the registry cannot be reached.',
    );
  mkdirSync(dirname(mark), { recursive: true });
  writeFileSync(mark, hash);
}

/**
 * Installs Debian packages whose commands are missing.
 * @param wanted command -> package
 */
export function ensureDebianPackages(wanted) {
  const missing = [
    ...new Set(
      Object.entries(wanted)
        .filter(([command]) => !findCommand(command))
        .map(([, name]) => name),
    ),
  ];
  if (!missing.length) return;
  if (!findCommand('apt-get'))
    throw new Missing(
      `This machine has no ${missing.join(', ')} and no apt-get to install it with. Install it by hand and start again.`,
    );
  const asRoot =
    process.getuid?.() === 0 ? [] : spawnSync('sudo', ['-n', 'true']).status === 0 ? ['sudo', '-n'] : null;
  if (!asRoot)
    throw new Missing(
      `${missing.join(', ')} must be installed, and this user may not install packages. As root run: apt-get install ${missing.join(' ')}`,
    );
  needSpace(1500);
  const run = (args) => {
    const [command, ...rest] = [...asRoot, 'apt-get', ...args];
    return (
      spawnSync(command, rest, {
        stdio: ['ignore', 'ignore', 'inherit'],
        env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' },
      }).status === 0
    );
  };
  say(`Installing Debian packages: ${missing.join(', ')} …`);
  run(['update', '-qq']);
  if (!run(['install', '-y', '-qq', '--no-install-recommends', ...missing]))
    throw new Missing(`apt-get could not install ${missing.join(', ')}. The lines above say why.`);
}
