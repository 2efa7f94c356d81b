import { readChecklist } from '#core/entry/checklist';
import { refuseFaults } from '../../dto/validation';
import { saveChecklist } from '../../services/checklists';
import { idOf } from '../../services/route-parameters';

export default defineEventHandler(async (event) => {
  const { checklist, faults } = await readChecklist(await readBody(event));
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return saveChecklist(idOf(event), checklist, event.context.person.name);
});
