import { stopJob } from '../../../services/jobs';

export default defineEventHandler((event) => {
  stopJob(getRouterParam(event, 'job') ?? '');
  return { ok: true };
});
