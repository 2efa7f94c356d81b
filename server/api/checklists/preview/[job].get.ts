import type { Ahead } from '../../../audits/reevaluating';
import { jobById, type Job } from '../../../platform/jobs/jobs';

/** The preview while it runs, with what it has found so far. */
export default defineEventHandler((event) => jobById(getRouterParam(event, 'job') ?? '') as Job<Ahead>);
