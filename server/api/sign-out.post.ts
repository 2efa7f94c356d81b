import { endSession } from '#server/people';

export default defineEventHandler(async (event) => {
  await endSession(event);
  return { ok: true };
});
