import { changeByFinding, changeBrief } from '#server/audits';
import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { AdoptDto } from '#server/sites';

export default defineEventHandler(async (event) => {
  const { environmentId, check, place } = await parseAs(AdoptDto, await readJson(event));
  const { siteId, field, change } = await changeByFinding(environmentId, check, place);
  return { field, version: await changeBrief(siteId, change, event.context.person.name) };
});
