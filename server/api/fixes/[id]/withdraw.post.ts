import { withdrawAcceptance } from '#server/fixes';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await withdrawAcceptance(idOf(event), event.context.person);
  return { ok: true };
});
