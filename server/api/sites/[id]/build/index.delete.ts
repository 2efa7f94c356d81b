import { forgetBuild } from '#server/builds';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await forgetBuild(idOf(event), event.context.person.name);
  return { ok: true };
});
