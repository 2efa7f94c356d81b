import { lookAtWatch } from '../../../launch/watching';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await lookAtWatch(idOf(event), event.context.person.name);
  return { ok: true };
});
