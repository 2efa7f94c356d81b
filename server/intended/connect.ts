/** Connects intended texts to events, hooks and questions of other subjects. */
import { judgeInputs, verdictSaved } from '#server/audits';
import { intendedFor, recordSeen } from './texts';

export function connectTexts(): void {
  judgeInputs.answer(async ({ id, siteId }) => ({ intended: await intendedFor(siteId, id) }));
  verdictSaved.on(async ({ isFresh, environment, findings }, transaction) => {
    if (isFresh) await recordSeen(environment, findings, transaction);
  });
}
