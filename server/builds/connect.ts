/** Connects builds to events, hooks and questions of other subjects. */
import { builtFiles, judgeInputs } from '#server/audits';
import { buildOf } from './builds';

export function connectBuilds(): void {
  builtFiles.answer(async (siteId) => (await buildOf(siteId))?.files.map((f) => f.path));
  judgeInputs.answer(async ({ kind, siteId }) =>
    kind === 'live' ? { build: await buildOf(siteId) } : undefined,
  );
}
