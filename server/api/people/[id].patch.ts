import { NameDto } from '../../people/dto';
import { renamePerson } from '../../people/people';
import { LIMITS, readJson } from '../../platform/http/body';
import { idOf } from '../../platform/http/route-parameters';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) => {
  await renamePerson(idOf(event), (await parseAs(NameDto, await readJson(event, LIMITS.signIn))).name);
  return { ok: true };
});
