import { LIMITS, readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { RemarkDto, guestOf, remarkByGuest } from '#server/reports';

export default defineEventHandler(async (event) => {
  const guest = await guestOf(event);
  await remarkByGuest(guest, await parseAs(RemarkDto, await readJson(event, LIMITS.form)));
  return { ok: true };
});
