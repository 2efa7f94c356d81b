import { idOf } from '#server/platform/http/route-parameters';
import { revokeLink } from '#server/reports';

export default defineEventHandler(async (event) => {
  await revokeLink(idOf(event));
  return { ok: true };
});
