import { briefVersions } from '#server/sites';
import { afterVersion, idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => briefVersions(idOf(event), afterVersion(event)));
