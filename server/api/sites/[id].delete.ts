import { idOf } from '#server/platform/http/route-parameters';
import { deleteSite } from '#server/sites';

export default defineEventHandler(async (event) => {
  await deleteSite(idOf(event));
  return { ok: true };
});
