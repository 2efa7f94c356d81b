import { deleteChecklist } from '#server/checklists';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await deleteChecklist(idOf(event));
  return { ok: true };
});
