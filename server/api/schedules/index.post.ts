import { readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';
import { ScheduleDto } from '../../schedules/dto';
import { keepSchedule } from '../../schedules/planning';

export default defineEventHandler(async (event) => ({
  id: await keepSchedule(await parseAs(ScheduleDto, await readJson(event)), event.context.person.name),
}));
