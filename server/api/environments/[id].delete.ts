import { deleteEnvironment } from '../../sites/environments';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await deleteEnvironment(idOf(event));
  return { ok: true };
});
