import { siteWatch } from '../../../launch/watching';
import { idOf } from '../../../platform/http/route-parameters';

/** The newest watch of the site; null where there was none. */
export default defineEventHandler((event) => siteWatch(idOf(event)));
