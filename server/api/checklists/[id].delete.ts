import { dropChecklist } from '../../checklists/checklists';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await dropChecklist(idOf(event));
  return { ok: true };
});
