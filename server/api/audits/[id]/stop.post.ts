import { stopAudit } from '#server/audits';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await stopAudit(idOf(event));
  return { ok: true };
});
