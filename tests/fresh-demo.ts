/** A demo with every environment audited once: made once, then copied for each test file that begins with one. */
import { cpSync, existsSync, mkdirSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { sourceHash } from '../scripts/build.mjs';
import { startStack, waitForAudits } from '../scripts/stack.mjs';

const TEMPLATES = '.test/demo-templates';

/**
 * Made by one process before the tests begin: files that run side by side would make it at the same time.
 * @returns the folder of a stopped demo, as these sources make it
 */
export async function demoTemplate(): Promise<string> {
  const folder = join(TEMPLATES, sourceHash(['net', 'scripts']).slice(0, 16));
  const mark = join(folder, 'audited');
  if (existsSync(mark)) return folder;
  rmSync(TEMPLATES, { recursive: true, force: true });
  mkdirSync(TEMPLATES, { recursive: true });
  const stack = await startStack({ folder });
  try {
    await waitForAudits(stack.address);
  } finally {
    await stack.stop();
  }
  writeFileSync(mark, '');
  return folder;
}

/** Puts a demo into a folder, in place of what is there. */
export async function freshDemo(folder: string): Promise<void> {
  const from = await demoTemplate();
  rmSync(folder, { recursive: true, force: true });
  cpSync(from, folder, { recursive: true });
}
