import { parseAs } from '../../../dto/validation';
import { AttestDto } from '../../../dto/work';
import { attest } from '../../../services/hand-work';
import { idOf } from '../../../services/route-parameters';

export default defineEventHandler(async (event) => {
  await attest(idOf(event), await parseAs(AttestDto, await readBody(event)), event.context.person);
  return { ok: true };
});
