import { deleteAudit } from '../../audits/audits';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await deleteAudit(idOf(event));
  return { ok: true };
});
