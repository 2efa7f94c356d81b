import { idOf } from '../../platform/http/route-parameters';
import { jobById } from '../../platform/jobs/queue';

export default defineEventHandler((event) => jobById(idOf(event, 'job')));
