import { deleteAudit } from '#server/audits';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await deleteAudit(idOf(event));
  return { ok: true };
});
