import { readJson } from '../platform/http/body';
import { AdoptDto } from '../sites/dto';
import { parseAs } from '../platform/http/validation';
import { changeByFinding } from '../sites/briefs';
import { changeBrief } from '../sites/sites';

export default defineEventHandler(async (event) => {
  const { environmentId, check, place } = await parseAs(AdoptDto, await readJson(event));
  const { siteId, field, change } = await changeByFinding(environmentId, check, place);
  return { field, version: await changeBrief(siteId, change, event.context.person.name) };
});
