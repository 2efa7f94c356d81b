import { StepLookDto } from '../../../launch/dto';
import { lookForStep } from '../../../launch/launches';
import { readJson } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { step } = await parseAs(StepLookDto, await readJson(event));
  return lookForStep(idOf(event), step, event.context.person.name);
});
