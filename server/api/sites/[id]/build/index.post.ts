import { MOST_BUILD_BYTES, changeBuild } from '#server/builds';
import { fileNameOf, readBytes } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';

/** A ZIP as the body, its name in a header, percent-encoded. */
export default defineEventHandler(async (event) => {
  const bytes = await readBytes(event, MOST_BUILD_BYTES);
  return changeBuild(idOf(event), fileNameOf(event), bytes, event.context.person.name);
});
