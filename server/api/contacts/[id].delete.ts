import { idOf } from '#server/platform/http/route-parameters';
import { endContact } from '#server/sites';

export default defineEventHandler(async (event) => {
  await endContact(idOf(event));
  return { ok: true };
});
