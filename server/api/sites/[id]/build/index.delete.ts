import { forgetBuild } from '../../../../builds/changing';
import { idOf } from '../../../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await forgetBuild(idOf(event), event.context.person.name);
  return { ok: true };
});
