import { BringBackDto } from '../../../dto/sites';
import { parseAs } from '../../../dto/validation';
import { changeBackTo } from '../../../services/briefs';
import { idOf } from '../../../services/route-parameters';
import { changeBrief } from '../../../services/sites';

export default defineEventHandler(async (event) => {
  const id = idOf(event);
  return {
    version: await changeBrief(
      id,
      await changeBackTo(id, (await parseAs(BringBackDto, await readBody(event))).version),
      event.context.person.name,
    ),
  };
});
