import { FoundPictureDto, useFoundPicture } from '#server/pictures';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { use, url } = await parseAs(FoundPictureDto, await readJson(event));
  await useFoundPicture(idOf(event), use, url, event.context.person.name);
  return { ok: true };
});
