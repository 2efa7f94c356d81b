import { StepActDto, actOnStep } from '#server/launch';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const input = await parseAs(StepActDto, await readJson(event));
  await actOnStep(idOf(event), getRouterParam(event, 'step') ?? '', input, event.context.person.name);
  return { ok: true };
});
