import { LIMITS, readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { ReasonDto, guestOf, withdrawByGuest } from '#server/reports';

export default defineEventHandler(async (event) => {
  const guest = await guestOf(event);
  const { reason } = await parseAs(ReasonDto, await readJson(event, LIMITS.form));
  await withdrawByGuest(guest, reason);
  return { ok: true };
});
