import { profileVersions } from '#server/hosts';
import { afterVersion, idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => profileVersions(idOf(event), afterVersion(event)));
