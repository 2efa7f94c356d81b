import { LIMITS, readJson } from '../../platform/http/body';
import { readChecklist } from '#core/entry/checklist';
import { refuseFaults } from '../../platform/http/validation';
import { makeChecklist } from '../../checklists/checklists';

export default defineEventHandler(async (event) => {
  const { checklist, faults } = await readChecklist(await readJson(event, LIMITS.document));
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return { id: await makeChecklist(checklist, event.context.person.name) };
});
