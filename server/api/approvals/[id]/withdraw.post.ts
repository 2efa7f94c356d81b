import { readJson } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';
import { withdrawYes } from '../../../reports/approvals';
import { ReasonDto } from '../../../reports/dto';

export default defineEventHandler(async (event) => {
  const { reason } = await parseAs(ReasonDto, await readJson(event));
  await withdrawYes(idOf(event), { by: event.context.person.name, reason });
  return { ok: true };
});
