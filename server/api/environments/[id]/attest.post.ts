import { readJson } from '../../../platform/http/body';
import { parseAs } from '../../../platform/http/validation';
import { AttestDto } from '../../../fixes/dto';
import { attest } from '../../../checklists/attesting';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await attest(idOf(event), await parseAs(AttestDto, await readJson(event)), event.context.person);
  return { ok: true };
});
