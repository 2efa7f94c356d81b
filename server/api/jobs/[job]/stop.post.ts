import { idOf } from '#server/platform/http/route-parameters';
import { stopJob } from '#server/platform/jobs/queue';

export default defineEventHandler(async (event) => {
  await stopJob(idOf(event, 'job'));
  return { ok: true };
});
