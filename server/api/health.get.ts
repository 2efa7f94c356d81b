import { databaseAnswers } from '#server/platform/db/connection';
import { startState, threadsAnswer } from '#server/platform/readiness';

/** 200 once Armband has started and while its database and its threads answer, 503 otherwise. */
export default defineEventHandler(async (event) => {
  const start = startState();
  const [database, threads] = await Promise.all([databaseAnswers(), threadsAnswer()]);
  const ok = start === 'ready' && database && threads;
  if (!ok) setResponseStatus(event, 503);
  const said = (answers: boolean): string => (answers ? 'answers' : 'does not answer');
  return { ok, start, database: said(database), threads: said(threads) };
});
