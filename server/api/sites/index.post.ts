import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { NewSiteDto, addSite } from '#server/sites';

export default defineEventHandler(async (event) => ({
  id: await addSite(await parseAs(NewSiteDto, await readJson(event)), event.context.person.name),
}));
