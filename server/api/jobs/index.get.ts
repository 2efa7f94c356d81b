import { runningJobs } from '../../services/jobs';

export default defineEventHandler(() => runningJobs());
