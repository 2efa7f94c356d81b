import { MOST_FILE_BYTES } from '#core/entry/attachment';
import { keepBeside } from '../../../checklists/attesting';
import { fileNameOf, readBytes } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';

/** The file's bytes as the body, its name in a header, percent-encoded. */
export default defineEventHandler(async (event) => {
  const body = await readBytes(event, MOST_FILE_BYTES);
  return keepBeside(idOf(event), fileNameOf(event), body, event.context.person);
});
