import { StepActDto } from '../../../../launch/dto';
import { actOnStep } from '../../../../launch/launches';
import { readJson } from '../../../../platform/http/body';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const input = await parseAs(StepActDto, await readJson(event));
  await actOnStep(idOf(event), getRouterParam(event, 'step') ?? '', input, event.context.person.name);
  return { ok: true };
});
