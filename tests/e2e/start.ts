/** Starts the demo's stack for the end-to-end tests and ends it afterwards. */
import { rmSync } from 'node:fs';
import { startStack, waitForAudits } from '../../scripts/stack.mjs';
import ensureFreshBuild from '../fresh-build';

export default async function start(): Promise<() => Promise<void>> {
  ensureFreshBuild();
  rmSync('.test/e2e', { recursive: true, force: true });
  const stack = await startStack({ folder: '.test/e2e' });
  process.env.ARMBAND_COOKIE = await waitForAudits(stack.address);
  process.env.ARMBAND_ADDRESS = stack.address;
  return () => stack.stop();
}
