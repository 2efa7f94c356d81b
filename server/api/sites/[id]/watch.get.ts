import { siteWatch } from '#server/launch';
import { idOf } from '#server/platform/http/route-parameters';

/** The newest watch of the site; null where there was none. */
export default defineEventHandler((event) => siteWatch(idOf(event)));
