import { takePlaceAway } from '../../services/places';
import { idOf } from '../../services/route-parameters';

export default defineEventHandler(async (event) => {
  await takePlaceAway(idOf(event));
  return { ok: true };
});
