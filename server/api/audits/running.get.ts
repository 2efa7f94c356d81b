import { runningAudits } from '../../audits/audits';

export default defineEventHandler(() => runningAudits());
