import { readJson } from '../../../platform/http/body';
import { BringBackDto } from '../../../sites/dto';
import { parseAs } from '../../../platform/http/validation';
import { changeBackTo } from '../../../sites/briefs';
import { idOf } from '../../../platform/http/route-parameters';
import { changeBrief } from '../../../sites/sites';

export default defineEventHandler(async (event) => {
  const id = idOf(event);
  return {
    version: await changeBrief(
      id,
      await changeBackTo(id, (await parseAs(BringBackDto, await readJson(event))).version),
      event.context.person.name,
    ),
  };
});
