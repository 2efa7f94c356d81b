import { readJson } from '#server/platform/http/body';
import { AssignmentsDto, assignChecklist } from '#server/checklists';
import { parseAs } from '#server/platform/http/validation';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await assignChecklist(idOf(event), (await parseAs(AssignmentsDto, await readJson(event))).assignments);
  return { ok: true };
});
