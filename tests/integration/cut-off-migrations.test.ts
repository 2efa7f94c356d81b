/** A kept database is upgraded by processes that are killed after every statement. `npm run test:upgrades` takes all. */
import { rmSync } from 'node:fs';
import { resolve } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { startDatabase } from '../../scripts/database.mjs';
import { contentOf, DUMPS, dyingChild, loadDump, upgradeKilled, upgradeWhole } from '../upgrade/kept-dumps';

const FOLDER = resolve('.test/cut-off');
const parts: { stop(): Promise<void> }[] = [];
/** Each has databases of its own: what a later version made is in no dump. */
const some = process.env.ARMBAND_ALL_UPGRADES ? DUMPS : DUMPS.slice(-1);
let env: Record<string, string>;
let child: string;

beforeAll(async () => {
  rmSync(FOLDER, { recursive: true, force: true });
  ({ env } = (await startDatabase(
    FOLDER,
    some.flatMap((_, i) => [`whole${i}`, `killed${i}`]),
    parts,
  )) as { env: Record<string, string> });
  child = await dyingChild();
});
afterAll(async () => {
  for (const part of parts.reverse()) await part.stop();
  rmSync(FOLDER, { recursive: true, force: true });
});

describe('an upgrade that is cut off after every statement', () => {
  it.each(some.map((file, i) => [file, `whole${i}`, `killed${i}`] as const))(
    '%s: ends with the same tables and rows as one that is not',
    (file, whole, killed) => {
      loadDump(file, env, whole);
      upgradeWhole(child, env, whole);
      loadDump(file, env, killed);
      expect(upgradeKilled(child, env, killed)).toBeGreaterThan(0);
      expect(contentOf(env, killed) === contentOf(env, whole)).toBe(true);
    },
  );
});
