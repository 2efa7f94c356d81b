import { idOf } from '../../platform/http/route-parameters';
import { deleteClient } from '../../sites/contents';

export default defineEventHandler(async (event) => {
  await deleteClient(idOf(event));
  return { ok: true };
});
