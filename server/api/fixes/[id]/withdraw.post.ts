import { withdrawAcceptance } from '../../../fixes/fixes';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await withdrawAcceptance(idOf(event), event.context.person);
  return { ok: true };
});
