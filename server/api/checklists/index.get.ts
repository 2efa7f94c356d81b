import { listChecklists } from '#server/checklists';

export default defineEventHandler(() => listChecklists());
