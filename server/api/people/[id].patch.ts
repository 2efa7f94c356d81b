import { PersonChangeDto } from '../../people/dto';
import { changePerson } from '../../people/people';
import { LIMITS, readJson } from '../../platform/http/body';
import { idOf } from '../../platform/http/route-parameters';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) => {
  await changePerson(idOf(event), await parseAs(PersonChangeDto, await readJson(event, LIMITS.signIn)));
  return { ok: true };
});
