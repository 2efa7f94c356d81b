import { readChecklist } from '#core/entry/checklist';
import { createChecklist } from '#server/checklists';
import { LIMITS, readJson } from '#server/platform/http/body';
import { refuseFaults } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { checklist, faults } = await readChecklist(await readJson(event, LIMITS.document));
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return { id: await createChecklist(checklist, event.context.person.name) };
});
