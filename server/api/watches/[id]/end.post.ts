import { endWatch } from '../../../launch/watching';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await endWatch(idOf(event), event.context.person.name);
  return { ok: true };
});
