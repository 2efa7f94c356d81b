/** Connects schedules to events, hooks and questions of other subjects. */
import { verdictSaved } from '#server/audits';
import { recordNews } from './news';

export function connectSchedules(): void {
  verdictSaved.on(async (verdict, transaction) => {
    if (verdict.isFresh) await recordNews(verdict, transaction);
  });
}
