import { idOf } from '#server/platform/http/route-parameters';
import { deleteSchedule } from '#server/schedules';

export default defineEventHandler(async (event) => {
  await deleteSchedule(idOf(event));
  return { ok: true };
});
