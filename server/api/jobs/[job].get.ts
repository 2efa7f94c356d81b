import { idOf } from '#server/platform/http/route-parameters';
import { jobById } from '#server/platform/jobs/queue';

export default defineEventHandler((event) => jobById(idOf(event, 'job')));
