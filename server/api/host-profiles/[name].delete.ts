import { dropProfile } from '../../hosts/host-profiles';
import { nameOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await dropProfile(nameOf(event));
  return { ok: true };
});
