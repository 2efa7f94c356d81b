import { readJson } from '../../platform/http/body';
import { idOf } from '../../platform/http/route-parameters';
import { parseAs } from '../../platform/http/validation';
import { ScheduleDto } from '../../schedules/dto';
import { planAhead } from '../../schedules/planning';
import { saveSchedule } from '../../schedules/schedules';

export default defineEventHandler(async (event) => {
  const id = await saveSchedule(
    await parseAs(ScheduleDto, await readJson(event)),
    event.context.person.name,
    idOf(event),
  );
  await planAhead();
  return { id };
});
