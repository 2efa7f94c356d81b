import { LIMITS, readJson } from '../../platform/http/body';
import { readChecklist } from '#core/entry/checklist';
import { refuseFaults } from '../../platform/http/validation';
import { saveChecklist } from '../../checklists/checklists';
import { requiredVersion, idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  const { checklist, faults } = await readChecklist(await readJson(event, LIMITS.document));
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return saveChecklist(idOf(event), checklist, event.context.person.name, requiredVersion(event));
});
