import { stopAudit } from '../../../audits/audits';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await stopAudit(idOf(event));
  return { ok: true };
});
