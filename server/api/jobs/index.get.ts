import { runningJobs } from '../../platform/jobs/jobs';

export default defineEventHandler(() => runningJobs());
