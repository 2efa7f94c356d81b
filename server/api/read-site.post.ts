import { readJson } from '#server/platform/http/body';
import { abortOnDisconnect } from '#server/platform/http/caller-left';
import { parseAs } from '#server/platform/http/validation';
import { ReadSiteDto, readFromSite } from '#server/sites';

export default defineEventHandler(async (event) => {
  const wanted = await parseAs(ReadSiteDto, await readJson(event));
  return readFromSite(wanted, event.context.person.name, abortOnDisconnect(event));
});
