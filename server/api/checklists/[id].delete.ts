import { dropChecklist } from '../../services/checklists';
import { idOf } from '../../services/route-parameters';

export default defineEventHandler(async (event) => {
  await dropChecklist(idOf(event));
  return { ok: true };
});
