import { readJson } from '../../../platform/http/body';
import { BriefDto } from '../../../sites/dto';
import { parseAs } from '../../../platform/http/validation';
import { fromVersion, idOf } from '../../../platform/http/route-parameters';
import { changeBrief } from '../../../sites/sites';

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
