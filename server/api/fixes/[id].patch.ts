import { readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';
import { FixChangeDto } from '../../fixes/dto';
import { changeFix } from '../../fixes/fixes';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await changeFix(idOf(event), await parseAs(FixChangeDto, await readJson(event)), event.context.person);
  return { ok: true };
});
