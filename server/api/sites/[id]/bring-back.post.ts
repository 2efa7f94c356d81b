import { changeBrief } from '#server/audits';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { BringBackDto, changeBackTo } from '#server/sites';

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
