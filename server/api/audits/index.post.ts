import { readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';
import { StartAuditsDto } from '../../fixes/dto';
import { startAudits } from '../../audits/audits';

export default defineEventHandler(async (event) => {
  const { environmentIds, scope } = await parseAs(StartAuditsDto, await readJson(event));
  return startAudits(environmentIds, event.context.person.name, { scope });
});
