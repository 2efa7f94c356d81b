import { MOST_FILE_BYTES } from '#core/entry/attachment';
import { keepBeside } from '../../../checklists/attesting';
import { readBytes } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';

/** The file's bytes as the body, its name in a header, percent-encoded. */
export default defineEventHandler(async (event) => {
  const body = await readBytes(event, MOST_FILE_BYTES);
  let name = getHeader(event, 'x-file-name') ?? 'file';
  try {
    name = decodeURIComponent(name);
  } catch {
    /* as it came */
  }
  return keepBeside(idOf(event), name, body, event.context.person);
});
