import { MOST_PICTURE_BYTES } from '#core/pictures/settings';
import { UseDto, environmentById, savePicture } from '#server/pictures';
import { fileNameOf, readBytes } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

/** The picture’s bytes as the body, its name in a header, percent-encoded. */
export default defineEventHandler(async (event) => {
  const { use } = await parseAs(UseDto, getQuery(event));
  const bytes = await readBytes(event, MOST_PICTURE_BYTES);
  const environment = await environmentById(idOf(event));
  await savePicture(environment, use, { name: fileNameOf(event), bytes }, event.context.person.name);
  return { ok: true };
});
