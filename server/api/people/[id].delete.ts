import { removePerson } from '#server/people';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await removePerson(idOf(event), event.context.person);
  return { ok: true };
});
