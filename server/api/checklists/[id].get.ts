import { checklistDetail } from '../../checklists/checklists';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler((event) => checklistDetail(idOf(event)));
