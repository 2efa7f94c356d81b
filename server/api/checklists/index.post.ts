import { LIMITS, readJson } from '#server/platform/http/body';
import { readChecklist } from '#core/entry/checklist';
import { refuseFaults } from '#server/platform/http/validation';
import { createChecklist } from '#server/checklists';

export default defineEventHandler(async (event) => {
  const { checklist, faults } = await readChecklist(await readJson(event, LIMITS.document));
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return { id: await createChecklist(checklist, event.context.person.name) };
});
