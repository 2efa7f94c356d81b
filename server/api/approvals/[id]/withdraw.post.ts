import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { withdrawApproval, ReasonDto } from '#server/reports';

export default defineEventHandler(async (event) => {
  const { reason } = await parseAs(ReasonDto, await readJson(event));
  await withdrawApproval(idOf(event), { by: event.context.person.name, reason });
  return { ok: true };
});
