import { readJson } from '#server/platform/http/body';
import { WhichSitesDto } from '#server/checklists';
import { startReevaluating } from '#server/audits';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const which = await parseAs(WhichSitesDto, await readJson(event));
  return { job: await startReevaluating(which, event.context.person.name) };
});
