import { endSession } from '../people/sessions';

export default defineEventHandler(async (event) => {
  await endSession(event);
  return { ok: true };
});
