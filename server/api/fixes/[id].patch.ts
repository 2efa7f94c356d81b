import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { FixChangeDto, changeFix } from '#server/fixes';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await changeFix(idOf(event), await parseAs(FixChangeDto, await readJson(event)), event.context.person);
  return { ok: true };
});
