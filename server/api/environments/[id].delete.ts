import { idOf } from '#server/platform/http/route-parameters';
import { deleteEnvironment } from '#server/sites';

export default defineEventHandler(async (event) => {
  await deleteEnvironment(idOf(event));
  return { ok: true };
});
