import { jobById } from '../../platform/jobs/jobs';

export default defineEventHandler((event) => jobById(getRouterParam(event, 'job') ?? ''));
