import { dropProfile } from '../../hosts/host-profiles';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await dropProfile(idOf(event));
  return { ok: true };
});
