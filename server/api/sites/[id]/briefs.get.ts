import { briefVersions } from '../../../sites/briefs';
import { afterVersion, idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => briefVersions(idOf(event), afterVersion(event)));
