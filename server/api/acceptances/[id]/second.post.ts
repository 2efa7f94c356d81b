import { secondAcceptance } from '../../../services/fixes';
import { idOf } from '../../../services/route-parameters';

export default defineEventHandler(async (event) => {
  await secondAcceptance(idOf(event), event.context.person);
  return { ok: true };
});
