import { LIMITS, readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { YesDto, guestOf, approveByGuest } from '#server/reports';

export default defineEventHandler(async (event) => {
  const guest = await guestOf(event);
  await approveByGuest(guest, await parseAs(YesDto, await readJson(event, LIMITS.form)));
  return { ok: true };
});
