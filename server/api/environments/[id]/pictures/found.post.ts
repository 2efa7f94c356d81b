import { readJson } from '../../../../platform/http/body';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { FoundPictureDto } from '../../../../pictures/dto';
import { takeFound } from '../../../../pictures/pictures';

export default defineEventHandler(async (event) => {
  const { use, url } = await parseAs(FoundPictureDto, await readJson(event));
  await takeFound(idOf(event), use, url, event.context.person.name);
  return { ok: true };
});
