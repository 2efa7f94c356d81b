import { readChecklist } from '#core/entry/checklist';
import { LookAheadDto } from '../../dto/rules';
import { parseAs, refuseFaults } from '../../dto/validation';
import { startLookAhead } from '../../services/rejudging';

export default defineEventHandler(async (event) => {
  const { checklist: given, siteIds } = await parseAs(LookAheadDto, await readBody(event));
  const { checklist, faults } = await readChecklist(given);
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return { job: (await startLookAhead(checklist, siteIds, event.context.person.name)).id };
});
