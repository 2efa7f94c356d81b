import { LIMITS, readJson } from '../../../platform/http/body';
import { parseAs } from '../../../platform/http/validation';
import { ReasonDto } from '../../../reports/dto';
import { guestOf } from '../../../reports/links';
import { noLongerYes } from '../../../reports/shared';

export default defineEventHandler(async (event) => {
  const guest = await guestOf(event);
  const { reason } = await parseAs(ReasonDto, await readJson(event, LIMITS.form));
  await noLongerYes(guest, reason);
  return { ok: true };
});
