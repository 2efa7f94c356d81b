import { stopJob } from '../../../platform/jobs/jobs';

export default defineEventHandler((event) => {
  stopJob(getRouterParam(event, 'job') ?? '');
  return { ok: true };
});
