import { checklistDetail } from '#server/checklists';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => checklistDetail(idOf(event)));
