import { checklistVersions } from '../../../../checklists/checklists';
import { afterVersion, idOf } from '../../../../platform/http/route-parameters';

export default defineEventHandler((event) => checklistVersions(idOf(event), afterVersion(event)));
