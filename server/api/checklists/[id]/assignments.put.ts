import { AssignmentsDto } from '../../../dto/rules';
import { parseAs } from '../../../dto/validation';
import { assignChecklist } from '../../../services/checklists';
import { idOf } from '../../../services/route-parameters';

export default defineEventHandler(async (event) => {
  await assignChecklist(idOf(event), (await parseAs(AssignmentsDto, await readBody(event))).assignments);
  return { ok: true };
});
