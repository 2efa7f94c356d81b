import { deleteView } from '#server/people';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await deleteView(event.context.person.id, idOf(event));
  return { ok: true };
});
