import { BriefDto } from '../../../sites/dto';
import { parseAs } from '../../../platform/http/validation';
import { idOf } from '../../../platform/http/route-parameters';
import { changeBrief } from '../../../sites/sites';

export default defineEventHandler(async (event) => {
  const from = Number(getQuery(event).from);
  return {
    version: await changeBrief(
      idOf(event),
      { ...(await parseAs(BriefDto, await readBody(event))) },
      event.context.person.name,
      Number.isInteger(from) && from > 0 ? from : undefined,
    ),
  };
});
