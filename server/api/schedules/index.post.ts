import { readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';
import { ScheduleDto } from '../../schedules/dto';
import { planAhead } from '../../schedules/planning';
import { saveSchedule } from '../../schedules/schedules';

export default defineEventHandler(async (event) => {
  const id = await saveSchedule(await parseAs(ScheduleDto, await readJson(event)), event.context.person.name);
  await planAhead();
  return { id };
});
