import { MOST_FILE_BYTES } from '#core/entry/attachment';
import { keepFile } from '../../../checklists/attesting';
import { Refused } from '../../../platform/errors';
import { idOf } from '../../../platform/http/route-parameters';

/** The file's bytes as the body, its name in a header, percent-encoded. */
export default defineEventHandler(async (event) => {
  if (Number(getHeader(event, 'content-length') ?? 0) > MOST_FILE_BYTES)
    throw new Refused(`The file is larger than ${MOST_FILE_BYTES / 1024 / 1024} MB.`);
  const body = await readRawBody(event, false);
  let name = getHeader(event, 'x-file-name') ?? 'file';
  try {
    name = decodeURIComponent(name);
  } catch {
    /* as it came */
  }
  return keepFile(idOf(event), name, body ?? Buffer.alloc(0), event.context.person);
});
