import { checkWatch } from '#server/launch';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await checkWatch(idOf(event), event.context.person.name);
  return { ok: true };
});
