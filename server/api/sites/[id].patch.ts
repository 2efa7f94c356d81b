import { readJson } from '#server/platform/http/body';
import { fromVersion, idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { SiteChangeDto } from '#server/sites';
import { changeSite } from '#server/audits';

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
