import { checklistDetail } from '../../services/checklists';
import { idOf } from '../../services/route-parameters';

export default defineEventHandler((event) => checklistDetail(idOf(event)));
