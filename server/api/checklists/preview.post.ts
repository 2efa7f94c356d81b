import { LIMITS, readJson } from '../../platform/http/body';
import { readChecklist } from '#core/entry/checklist';
import { LookAheadDto } from '../../checklists/dto';
import { parseAs, refuseFaults } from '../../platform/http/validation';
import { startPreview } from '../../audits/reevaluating';

export default defineEventHandler(async (event) => {
  const { checklist: given, ...which } = await parseAs(LookAheadDto, await readJson(event, LIMITS.document));
  const { checklist, faults } = await readChecklist(given);
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return { job: await startPreview(checklist, which, event.context.person.name) };
});
