import { readJson } from '../../platform/http/body';
import { WhichSitesDto } from '../../checklists/dto';
import { parseAs } from '../../platform/http/validation';
import { startReevaluating } from '../../audits/reevaluating';

export default defineEventHandler(async (event) => {
  const which = await parseAs(WhichSitesDto, await readJson(event));
  return { job: await startReevaluating(which, event.context.person.name) };
});
