import { BeginLaunchDto, moveLaunch } from '#server/launch';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { plannedAt } = await parseAs(BeginLaunchDto, await readJson(event));
  await moveLaunch(idOf(event), new Date(plannedAt), event.context.person.name);
  return { ok: true };
});
