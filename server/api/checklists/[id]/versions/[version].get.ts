import { checklistAsOf } from '#server/checklists';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) =>
  checklistAsOf(idOf(event), Number(getRouterParam(event, 'version')) || 0),
);
