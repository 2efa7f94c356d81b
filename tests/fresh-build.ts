/** Tests of the running application never meet an older build than the sources, nor a demo of an older one. */
import { ensureBuild } from '../scripts/build.mjs';
import { ensureCommand } from '../scripts/build-cli.mjs';
import { demoTemplate } from './fresh-demo';

export default async function setup(): Promise<void> {
  ensureBuild((text) => process.stdout.write(`${text}\n`));
  await ensureCommand();
  await demoTemplate();
}
