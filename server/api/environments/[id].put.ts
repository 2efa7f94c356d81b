import { readJson } from '../../platform/http/body';
import { PlaceDto } from '../../sites/dto';
import { parseAs } from '../../platform/http/validation';
import { changePlace } from '../../sites/environments';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await changePlace(idOf(event), await parseAs(PlaceDto, await readJson(event)));
  return { ok: true };
});
