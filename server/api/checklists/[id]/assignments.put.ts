import { AssignmentsDto, assignChecklist } from '#server/checklists';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  await assignChecklist(idOf(event), (await parseAs(AssignmentsDto, await readJson(event))).assignments);
  return { ok: true };
});
