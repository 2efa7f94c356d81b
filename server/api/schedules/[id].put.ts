import { readJson } from '../../platform/http/body';
import { idOf } from '../../platform/http/route-parameters';
import { parseAs } from '../../platform/http/validation';
import { ScheduleDto } from '../../schedules/dto';
import { keepSchedule } from '../../schedules/planning';

export default defineEventHandler(async (event) => ({
  id: await keepSchedule(
    await parseAs(ScheduleDto, await readJson(event)),
    event.context.person.name,
    idOf(event),
  ),
}));
