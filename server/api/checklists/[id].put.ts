import { readChecklist } from '#core/entry/checklist';
import { saveChecklist } from '#server/checklists';
import { LIMITS, readJson } from '#server/platform/http/body';
import { requiredVersion, idOf } from '#server/platform/http/route-parameters';
import { refuseFaults } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { checklist, faults } = await readChecklist(await readJson(event, LIMITS.document));
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return saveChecklist(idOf(event), checklist, event.context.person.name, requiredVersion(event));
});
