import { PlaceDto } from '../../dto/sites';
import { parseAs } from '../../dto/validation';
import { changePlace } from '../../services/places';
import { idOf } from '../../services/route-parameters';

export default defineEventHandler(async (event) => {
  await changePlace(idOf(event), await parseAs(PlaceDto, await readBody(event)));
  return { ok: true };
});
