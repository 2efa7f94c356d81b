import { stopAudit } from '../../../services/audits';
import { idOf } from '../../../services/route-parameters';

export default defineEventHandler(async (event) => {
  await stopAudit(idOf(event));
  return { ok: true };
});
