import { checklistAsOf } from '../../../../checklists/checklists';
import { idOf } from '../../../../platform/http/route-parameters';

export default defineEventHandler((event) =>
  checklistAsOf(idOf(event), Number(getRouterParam(event, 'version')) || 0),
);
