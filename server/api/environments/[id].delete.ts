import { deleteEnvironment } from '#server/sites';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await deleteEnvironment(idOf(event));
  return { ok: true };
});
