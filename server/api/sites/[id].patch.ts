import { changeSite } from '#server/audits';
import { readJson } from '#server/platform/http/body';
import { fromVersion, idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { SiteChangeDto } from '#server/sites';

export default defineEventHandler(async (event) => {
  return {
    version: await changeSite(
      idOf(event),
      await parseAs(SiteChangeDto, await readJson(event)),
      event.context.person.name,
      fromVersion(event),
    ),
  };
});
