import { deleteView } from '../../people/views';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) => {
  await deleteView(event.context.person.id, idOf(event));
  return { ok: true };
});
