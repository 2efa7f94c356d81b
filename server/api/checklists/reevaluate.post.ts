import { startReevaluating } from '#server/audits';
import { WhichSitesDto } from '#server/checklists';
import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const which = await parseAs(WhichSitesDto, await readJson(event));
  return { job: await startReevaluating(which, event.context.person.name) };
});
