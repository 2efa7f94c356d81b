import { BriefDto } from '../../../dto/sites';
import { parseAs } from '../../../dto/validation';
import { idOf } from '../../../services/route-parameters';
import { changeBrief } from '../../../services/sites';

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
