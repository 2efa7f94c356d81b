import { readChecklist } from '#core/entry/checklist';
import { refuseFaults } from '../../platform/http/validation';
import { saveChecklist } from '../../checklists/checklists';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  const { checklist, faults } = await readChecklist(await readBody(event));
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return saveChecklist(idOf(event), checklist, event.context.person.name);
});
