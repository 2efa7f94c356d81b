import { changeBrief } from '#server/audits';
import { readJson } from '#server/platform/http/body';
import { fromVersion, idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { BriefDto } from '#server/sites';

export default defineEventHandler(async (event) => {
  return {
    version: await changeBrief(
      idOf(event),
      { ...(await parseAs(BriefDto, await readJson(event))) },
      event.context.person.name,
      fromVersion(event),
    ),
  };
});
