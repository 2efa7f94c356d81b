import { MOST_PICTURE_BYTES } from '#core/pictures/settings';
import { fileNameOf, readBytes } from '../../../../platform/http/body';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { UseDto } from '../../../../pictures/dto';
import { environmentById } from '../../../../pictures/found-pictures';
import { takePicture } from '../../../../pictures/pictures';

/** The picture’s bytes as the body, its name in a header, percent-encoded. */
export default defineEventHandler(async (event) => {
  const { use } = await parseAs(UseDto, getQuery(event));
  const bytes = await readBytes(event, MOST_PICTURE_BYTES);
  const environment = await environmentById(idOf(event));
  await takePicture(environment, use, { name: fileNameOf(event), bytes }, event.context.person.name);
  return { ok: true };
});
