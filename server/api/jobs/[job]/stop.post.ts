import { idOf } from '../../../platform/http/route-parameters';
import { stopJob } from '../../../platform/jobs/queue';

export default defineEventHandler(async (event) => {
  await stopJob(idOf(event, 'job'));
  return { ok: true };
});
