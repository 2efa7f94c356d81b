/** Starts the demo's stack for the end-to-end tests and ends it afterwards. */
import { startStack, waitForAudits } from '../../scripts/stack.mjs';
import { freshDemo } from '../fresh-demo';
import ensureFreshBuild from '../fresh-build';

export default async function start(): Promise<() => Promise<void>> {
  ensureFreshBuild();
  await freshDemo('.test/e2e');
  const stack = await startStack({ folder: '.test/e2e' });
  process.env.ARMBAND_COOKIE = await waitForAudits(stack.address);
  process.env.ARMBAND_ADDRESS = stack.address;
  return () => stack.stop();
}
