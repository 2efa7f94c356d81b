import { runningAudits } from '../../services/audits';

export default defineEventHandler(() => runningAudits());
