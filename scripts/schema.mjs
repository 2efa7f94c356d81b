/**
 * Writes docs/schemas/evidence.schema.json from the types, so that the two cannot differ. A test looks that
 * it is current.
 */
import { writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { createGenerator } from 'ts-json-schema-generator';
import { ROOT } from './packages.mjs';

/** Tuples as draft 2020-12 writes them; the generator knows draft 7. */
function modern(value) {
  if (Array.isArray(value)) return value.map(modern);
  if (typeof value !== 'object' || value === null) return value;
  const out = Object.fromEntries(Object.entries(value).map(([k, v]) => [k, modern(v)]));
  if (!Array.isArray(out.items)) return out;
  const { items, ...rest } = out;
  return { ...rest, prefixItems: items, items: false };
}

/** @returns the schema's text */
export function evidenceSchema() {
  const generator = createGenerator({
    path: join(ROOT, 'core/facts/evidence.ts'),
    tsconfig: join(ROOT, 'tsconfig.scripts.json'),
    type: 'Evidence',
    skipTypeCheck: true,
    topRef: false,
    additionalProperties: false,
  });
  const schema = generator.createSchema('Evidence');
  delete schema.$schema;
  return `${JSON.stringify({ $schema: 'https://json-schema.org/draft/2020-12/schema', title: 'Evidence', description: 'Everything Armband collected about one environment at one time. Times are ISO 8601, durations milliseconds, sizes bytes.', ...modern(schema) }, null, 2)}\n`;
}

if (process.argv[1]?.endsWith('schema.mjs'))
  writeFileSync(join(ROOT, 'docs/schemas/evidence.schema.json'), evidenceSchema());
