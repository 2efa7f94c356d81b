import { StepLookDto, checkStep } from '#server/launch';
import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { step } = await parseAs(StepLookDto, await readJson(event));
  return checkStep(idOf(event), step, event.context.person.name);
});
