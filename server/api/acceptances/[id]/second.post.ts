import { secondAcceptance } from '#server/fixes';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await secondAcceptance(idOf(event), event.context.person);
  return { ok: true };
});
