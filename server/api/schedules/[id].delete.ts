import { idOf } from '../../platform/http/route-parameters';
import { dropSchedule } from '../../schedules/schedules';

export default defineEventHandler(async (event) => {
  await dropSchedule(idOf(event));
  return { ok: true };
});
