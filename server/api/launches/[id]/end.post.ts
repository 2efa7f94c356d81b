import { EndLaunchDto } from '../../../launch/dto';
import { endLaunch } from '../../../launch/launches';
import { readJson } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  await endLaunch(idOf(event), await parseAs(EndLaunchDto, await readJson(event)), event.context.person.name);
  return { ok: true };
});
