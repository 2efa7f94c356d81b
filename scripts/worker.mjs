/**
 * `npm run worker`: takes up work beside a server, on this machine or another: the same build and the same settings
 * (database, secret, network), no screens. It answers at /api/health.
 */
import { spawn } from 'node:child_process';
import { join } from 'node:path';
import { ensureBuild } from './build.mjs';
import { freePort } from './database.mjs';
import { ensureNodePackages, Missing, ROOT } from './packages.mjs';

const say = (text) => process.stdout.write(`${text}\n`);
try {
  ensureNodePackages();
  ensureBuild(say);
  const port = process.env.PORT ?? String(await freePort());
  const child = spawn(process.execPath, [join(ROOT, '.output', 'server', 'index.mjs')], {
    stdio: 'inherit',
    env: { NODE_ENV: 'production', ...process.env, PORT: port, NITRO_PORT: port, ARMBAND_ROLE: 'worker' },
  });
  for (const signal of ['SIGINT', 'SIGTERM']) process.on(signal, () => child.kill(signal));
  child.once('exit', (code, signal) => {
    process.exitCode = signal ? 0 : (code ?? 1);
  });
} catch (error) {
  process.stderr.write(`${error instanceof Missing ? error.message : error.stack}\n`);
  process.exitCode = 1;
}
