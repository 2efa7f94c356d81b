/** Tests of the running application never meet an older build than the sources. */
import { ensureBuild } from '../scripts/build.mjs';

export default function setup(): void {
  ensureBuild((text) => process.stdout.write(`${text}\n`));
}
