import { endSessionByKey } from '#server/people';

export default defineEventHandler(async (event) => {
  await endSessionByKey(event.context.person.id, getRouterParam(event, 'key') ?? '');
  return { ok: true };
});
