import { withdrawAcceptance } from '../../../services/fixes';
import { idOf } from '../../../services/route-parameters';

export default defineEventHandler(async (event) => {
  await withdrawAcceptance(idOf(event), event.context.person);
  return { ok: true };
});
