import { MOST_BUILD_BYTES } from '../../../../builds/builds';
import { changeBuild } from '../../../../builds/changing';
import { fileNameOf, readBytes } from '../../../../platform/http/body';
import { idOf } from '../../../../platform/http/route-parameters';

/** A ZIP as the body, its name in a header, percent-encoded. */
export default defineEventHandler(async (event) => {
  const bytes = await readBytes(event, MOST_BUILD_BYTES);
  return changeBuild(idOf(event), fileNameOf(event), bytes, event.context.person.name);
});
