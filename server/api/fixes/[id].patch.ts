import { FixChangeDto, changeFix } from '#server/fixes';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  await changeFix(idOf(event), await parseAs(FixChangeDto, await readJson(event)), event.context.person);
  return { ok: true };
});
