import { readChecklist } from '#core/entry/checklist';
import { refuseFaults } from '../../dto/validation';
import { makeChecklist } from '../../services/checklists';

export default defineEventHandler(async (event) => {
  const { checklist, faults } = await readChecklist(await readBody(event));
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return { id: await makeChecklist(checklist, event.context.person.name) };
});
