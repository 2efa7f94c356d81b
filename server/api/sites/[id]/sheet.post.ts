import { BeginLaunchDto } from '../../../launch/dto';
import { beginLaunch } from '../../../launch/launches';
import { readJson } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { plannedAt } = await parseAs(BeginLaunchDto, await readJson(event));
  return beginLaunch(idOf(event), new Date(plannedAt), event.context.person.name);
});
