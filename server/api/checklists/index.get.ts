import { listChecklists } from '../../checklists/checklists';

export default defineEventHandler(() => listChecklists());
