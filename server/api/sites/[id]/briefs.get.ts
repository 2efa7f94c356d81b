import { afterVersion, idOf } from '#server/platform/http/route-parameters';
import { briefVersions } from '#server/sites';

export default defineEventHandler((event) => briefVersions(idOf(event), afterVersion(event)));
