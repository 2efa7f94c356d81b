/** The situation that evidence is judged in, by when its parts were looked at. */
import { expect, it } from 'vitest';
import { fullChecklist } from '#core/checks/engine/checklist';
import { evidence } from '#core/checks/example-evidence';
import { timesOf } from '#core/facts/part-times';
import { packJson } from '#server/platform/packed';
import { judgeBytes } from './judge-bytes';

const LAUNCHED = '2026-06-02T10:00:00.000Z';
const BEFORE = '2026-06-01T10:00:00.000Z';
const AFTER = '2026-06-03T10:00:00.000Z';

it.each([
  ['all seen before the launch', BEFORE, undefined, 'former'],
  ['all seen after it', AFTER, undefined, 'live'],
  ['one part seen after it, the others before', AFTER, BEFORE, 'former'],
  ['parts seen one after the other, all after it', AFTER, AFTER, 'live'],
])('of a relaunch, %s', async (_, startedAt, pages, situation) => {
  const seen = { ...evidence(), startedAt, finishedAt: startedAt };
  const times = pages ? { times: { ...timesOf(seen), pages } } : {};
  const verdict = await judgeBytes({
    evidence: await packJson({ ...seen, ...times }),
    input: {
      brief: {},
      checklist: fullChecklist(),
      of: { kind: 'live', stage: 'launched', replaces: true, launchedAt: LAUNCHED },
      at: AFTER,
    },
  });
  expect(verdict.situation).toBe(situation);
});
