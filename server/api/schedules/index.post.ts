import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { ScheduleDto, storeSchedule } from '#server/schedules';

export default defineEventHandler(async (event) => ({
  id: await storeSchedule(await parseAs(ScheduleDto, await readJson(event)), event.context.person.name),
}));
