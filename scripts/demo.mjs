/**
 * `npm run demo`: installs what is missing, starts everything, loads the demo data, and ends all of it on
 * Ctrl-C. `npm run dev` is the same with `--watch`: it serves the sources, and follows each change.
 */
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { ensureBuild } from './build.mjs';
import { ensureDebianPackages, ensureNodePackages, Missing, needSpace, ROOT } from './packages.mjs';
import { DEMO_LOGIN, startStack, stopParts, waitForAudits } from './stack.mjs';

const say = (text) => process.stdout.write(`${text}\n`);
let stack;
/** What runs already: all of it may not be up yet when Ctrl-C comes. */
const parts = [];
let stopping = false;

async function stop(code) {
  if (stopping) return;
  stopping = true;
  say('\nStopping …');
  await (stack ? stack.stop() : stopParts(parts));
  say('All stopped.');
  process.exit(code);
}

async function main() {
  const { values } = parseArgs({
    options: {
      fresh: { type: 'boolean' },
      watch: { type: 'boolean' },
      port: { type: 'string' },
      folder: { type: 'string' },
    },
  });
  const port = values.port === undefined ? 4310 : Number(values.port);
  if (!Number.isInteger(port) || port < 1 || port > 65535)
    throw new Missing(`--port takes a number from 1 to 65535, not “${values.port}”.`);
  needSpace(500);
  ensureNodePackages();
  ensureDebianPackages({
    mariadbd: 'mariadb-server',
    'mariadb-install-db': 'mariadb-server',
    chromium: 'chromium',
  });
  const folder = resolve(ROOT, values.folder ?? '.demo');
  if (values.fresh) {
    say('Starting over: the demo’s data is deleted.');
    rmSync(folder, { recursive: true, force: true });
  }
  const watch = values.watch ?? false;
  if (!watch) ensureBuild(say);
  process.on('SIGINT', () => void stop(0));
  process.on('SIGTERM', () => void stop(0));
  process.on('SIGHUP', () => void stop(0));
  const env = { ARMBAND_RENDER: 'always' };
  stack = await startStack({ folder, port, strict: values.port !== undefined, watch, say, env, parts });
  if (stopping) return;
  for (const child of [stack.app, stack.practice, stack.database.child])
    child.once('exit', () => {
      if (!stopping) {
        say(`A part of the demo ended by itself:\n${stack.log().slice(-1500)}`);
        void stop(1);
      }
    });
  await waitForAudits(stack.address, (left) => {
    if (left) say(`Auditing the demo’s sites: ${left} environments left …`);
  });
  say('Showing clients their sites …');
  // its packages may have been installed only just now
  const { showClients } = await import('./show-clients.mjs');
  const link = await showClients(stack, folder);
  if (stopping) return;
  say(
    `\nArmband is ready at ${stack.address}\n  sign in as  ${DEMO_LOGIN.email}\n  password    ${DEMO_LOGIN.password}\n  a client’s share link, to be opened in another browser:\n              ${link}\n\nCtrl-C stops everything.`,
  );
}

main().catch(async (error) => {
  if (stopping) return;
  process.stderr.write(`${error instanceof Missing ? error.message : error.stack}\n`);
  await stack?.stop();
  process.exit(1);
});
