import { beginSession, endAllSessions } from '#server/people';

/** Signs out everywhere; this browser goes on with a new session. */
export default defineEventHandler(async (event) => {
  const { person } = event.context;
  await endAllSessions(person.id);
  await beginSession(event, person);
  return { ok: true };
});
