import { dropProfile } from '../../services/host-profiles';
import { nameOf } from '../../services/route-parameters';

export default defineEventHandler(async (event) => {
  await dropProfile(nameOf(event));
  return { ok: true };
});
