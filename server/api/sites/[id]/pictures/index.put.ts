import { readJson } from '../../../../platform/http/body';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { PictureSettingsDto } from '../../../../pictures/dto';
import { setPictures } from '../../../../pictures/pictures';

export default defineEventHandler(async (event) => {
  await setPictures(
    idOf(event),
    await parseAs(PictureSettingsDto, await readJson(event)),
    event.context.person.name,
  );
  return { ok: true };
});
