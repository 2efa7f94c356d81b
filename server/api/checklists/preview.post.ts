import { readChecklist } from '#core/entry/checklist';
import { startPreview } from '#server/audits';
import { PreviewDto } from '#server/checklists';
import { LIMITS, readJson } from '#server/platform/http/body';
import { parseAs, refuseFaults } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { checklist: given, ...which } = await parseAs(PreviewDto, await readJson(event, LIMITS.document));
  const { checklist, faults } = await readChecklist(given);
  if (faults.length) throw refuseFaults(faults.map((f) => f.message));
  return { job: await startPreview(checklist, which, event.context.person.name) };
});
