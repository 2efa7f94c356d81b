import { StartAuditsDto, startAudits } from '#server/audits';
import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { environmentIds, scope } = await parseAs(StartAuditsDto, await readJson(event));
  return startAudits(environmentIds, event.context.person.name, { scope });
});
