import { readJson } from '#server/platform/http/body';
import { BringBackDto, changeBackTo } from '#server/sites';
import { changeBrief } from '#server/audits';
import { parseAs } from '#server/platform/http/validation';
import { idOf } from '#server/platform/http/route-parameters';

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
