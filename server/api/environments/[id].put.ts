import { PlaceDto } from '../../sites/dto';
import { parseAs } from '../../platform/http/validation';
import { changePlace } from '../../sites/environments';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await changePlace(idOf(event), await parseAs(PlaceDto, await readBody(event)));
  return { ok: true };
});
