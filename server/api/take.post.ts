import { TakeDto } from '../dto/sites';
import { parseAs } from '../dto/validation';
import { changeByFinding } from '../services/briefs';
import { changeBrief } from '../services/sites';

export default defineEventHandler(async (event) => {
  const { environmentId, check, place } = await parseAs(TakeDto, await readBody(event));
  const { siteId, field, change } = await changeByFinding(environmentId, check, place);
  return { field, version: await changeBrief(siteId, change, event.context.person.name) };
});
