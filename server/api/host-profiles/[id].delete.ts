import { deleteProfile } from '#server/hosts';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await deleteProfile(idOf(event));
  return { ok: true };
});
