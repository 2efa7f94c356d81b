import { parseAs } from '../../dto/validation';
import { FixChangeDto } from '../../dto/work';
import { changeFix } from '../../services/fixes';
import { idOf } from '../../services/route-parameters';

export default defineEventHandler(async (event) => {
  await changeFix(idOf(event), await parseAs(FixChangeDto, await readBody(event)), event.context.person);
  return { ok: true };
});
