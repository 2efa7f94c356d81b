import { briefVersions } from '../../../services/briefs';
import { idOf } from '../../../services/route-parameters';

export default defineEventHandler((event) => briefVersions(idOf(event)));
