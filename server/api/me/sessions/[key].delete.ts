import { endSessionByKey } from '../../../people/sessions';

export default defineEventHandler(async (event) => {
  await endSessionByKey(event.context.person.id, getRouterParam(event, 'key') ?? '');
  return { ok: true };
});
