import { idOf } from '../../platform/http/route-parameters';
import { revokeLink } from '../../reports/links';

export default defineEventHandler(async (event) => {
  await revokeLink(idOf(event));
  return { ok: true };
});
