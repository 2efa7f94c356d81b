import { PictureSettingsDto, setPictures } from '#server/pictures';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  await setPictures(
    idOf(event),
    await parseAs(PictureSettingsDto, await readJson(event)),
    event.context.person.name,
  );
  return { ok: true };
});
