import { checklistVersions } from '#server/checklists';
import { afterVersion, idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => checklistVersions(idOf(event), afterVersion(event)));
