import { runningAudits } from '#server/audits';

export default defineEventHandler(() => runningAudits());
