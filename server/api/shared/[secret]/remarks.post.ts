import { LIMITS, readJson } from '../../../platform/http/body';
import { parseAs } from '../../../platform/http/validation';
import { RemarkDto } from '../../../reports/dto';
import { guestOf } from '../../../reports/links';
import { remarkBy } from '../../../reports/shared';

export default defineEventHandler(async (event) => {
  const guest = await guestOf(event);
  await remarkBy(guest, await parseAs(RemarkDto, await readJson(event, LIMITS.form)));
  return { ok: true };
});
