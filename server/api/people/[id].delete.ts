import { removePerson } from '../../people/people';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await removePerson(idOf(event), event.context.person);
  return { ok: true };
});
