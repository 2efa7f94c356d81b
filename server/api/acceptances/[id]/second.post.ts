import { secondAcceptance } from '../../../fixes/fixes';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await secondAcceptance(idOf(event), event.context.person);
  return { ok: true };
});
