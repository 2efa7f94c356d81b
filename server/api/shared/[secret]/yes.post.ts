import { LIMITS, readJson } from '../../../platform/http/body';
import { parseAs } from '../../../platform/http/validation';
import { YesDto } from '../../../reports/dto';
import { guestOf } from '../../../reports/links';
import { yesBy } from '../../../reports/shared';

export default defineEventHandler(async (event) => {
  const guest = await guestOf(event);
  await yesBy(guest, await parseAs(YesDto, await readJson(event, LIMITS.form)));
  return { ok: true };
});
