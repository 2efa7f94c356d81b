import { idOf } from '../../platform/http/route-parameters';
import { deleteSite } from '../../sites/contents';

export default defineEventHandler(async (event) => {
  await deleteSite(idOf(event));
  return { ok: true };
});
