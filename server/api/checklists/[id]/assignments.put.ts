import { readJson } from '../../../platform/http/body';
import { AssignmentsDto } from '../../../checklists/dto';
import { parseAs } from '../../../platform/http/validation';
import { assignChecklist } from '../../../checklists/checklists';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await assignChecklist(idOf(event), (await parseAs(AssignmentsDto, await readJson(event))).assignments);
  return { ok: true };
});
