import { takePlaceAway } from '../../sites/environments';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await takePlaceAway(idOf(event));
  return { ok: true };
});
