import { PersonChangeDto, changePerson } from '#server/people';
import { LIMITS, readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  await changePerson(idOf(event), await parseAs(PersonChangeDto, await readJson(event, LIMITS.signIn)));
  return { ok: true };
});
