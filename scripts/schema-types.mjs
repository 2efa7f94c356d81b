/**
 * Writes the subtypes of schema.org's Organization, as the package schema-dts has its tree, for the checks of
 * structured data. Run it when the package is raised: `node scripts/schema-types.mjs`.
 */
import { readFileSync, writeFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { ROOT } from './packages.mjs';

const declared = createRequire(import.meta.url)
  .resolve('schema-dts')
  .replace(/\.js$/, '.d.ts');
const types = readFileSync(declared, 'utf8');

/** The names that a type's union has beside its own leaf. */
function below(type) {
  const union = new RegExp(`^export type ${type} = ([^;]+);`, 'm').exec(types)?.[1] ?? '';
  return union
    .split('|')
    .map((name) => name.trim())
    .filter((name) => /^[A-Z]\w*$/.test(name) && !name.endsWith('Leaf'));
}

const found = new Set();
const queue = ['Organization'];
while (queue.length) {
  const type = queue.shift();
  if (found.has(type)) continue;
  found.add(type);
  queue.push(...below(type));
}
const target = join(ROOT, 'core/checks/catalogue/identity/schema-organisations.json');
writeFileSync(target, `${JSON.stringify([...found].sort(), null, 2)}\n`);
process.stdout.write(`${found.size} types in ${target}\n`);
