import { briefVersions } from '../../../sites/briefs';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => briefVersions(idOf(event)));
