import { GoDto, go } from '#server/launch';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const input = await parseAs(GoDto, await readJson(event));
  return go(idOf(event), input, event.context.person);
});
