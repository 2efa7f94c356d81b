import { databaseAnswers } from '../platform/db/connection';
import { startState } from '../platform/readiness';

/** 200 once Armband has started and while its database answers, 503 otherwise. */
export default defineEventHandler(async (event) => {
  const start = startState();
  const database = await databaseAnswers();
  const ok = start === 'ready' && database;
  if (!ok) setResponseStatus(event, 503);
  return { ok, start, database: database ? 'answers' : 'does not answer' };
});
