import { listChecklists } from '../../services/checklists';

export default defineEventHandler(() => listChecklists());
