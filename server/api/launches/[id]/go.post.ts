import { GoDto } from '../../../launch/dto';
import { go } from '../../../launch/launches';
import { readJson } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const input = await parseAs(GoDto, await readJson(event));
  return go(idOf(event), input, event.context.person);
});
