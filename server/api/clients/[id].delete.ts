import { idOf } from '#server/platform/http/route-parameters';
import { deleteClient } from '#server/sites';

export default defineEventHandler(async (event) => {
  await deleteClient(idOf(event));
  return { ok: true };
});
