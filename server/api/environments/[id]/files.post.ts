import { MOST_FILE_BYTES } from '#core/entry/attachment';
import { saveAttachment } from '#server/audits';
import { fileNameOf, readBytes } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';

/** The file's bytes as the body, its name in a header, percent-encoded. */
export default defineEventHandler(async (event) => {
  const body = await readBytes(event, MOST_FILE_BYTES);
  return saveAttachment(idOf(event), fileNameOf(event), body, event.context.person);
});
