/**
 * `npm run fill -- --folder FOLDER [--sites 5000] [--audits 60]`: a database of its own in a folder, filled with many
 * sites. `npm run demo` and the tests do not need it.
 */
import { writeFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { closeDatabase } from '../server/platform/db/connection';
import { startDatabase } from './database.mjs';
import { fillManySites } from './many-sites';

const { values } = parseArgs({
  options: {
    folder: { type: 'string', default: '.test/many-sites/mariadb' },
    sites: { type: 'string', default: '5000' },
    audits: { type: 'string', default: '60' },
  },
});
const start = performance.now();
const say = (what: string): void => {
  process.stdout.write(`${((performance.now() - start) / 1000).toFixed(0)} s: ${what}\n`);
};
const folder = resolve(values.folder);
const server = await startDatabase(folder);
Object.assign(process.env, server.env);
try {
  await fillManySites({ sites: Number(values.sites), audits: Number(values.audits) }, say);
  // for whoever would rather use it again than fill it anew
  writeFileSync(join(folder, 'filled'), '');
  say(`done; it lies in ${values.folder}`);
} finally {
  await closeDatabase();
  await server.stop();
}
