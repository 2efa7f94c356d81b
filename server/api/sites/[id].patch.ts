import { readJson } from '../../platform/http/body';
import { fromVersion, idOf } from '../../platform/http/route-parameters';
import { parseAs } from '../../platform/http/validation';
import { SiteChangeDto } from '../../sites/dto';
import { changeSite } from '../../sites/sites';

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
