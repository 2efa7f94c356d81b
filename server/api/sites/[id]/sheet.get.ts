import { siteSheet } from '#server/launch';
import { idOf } from '#server/platform/http/route-parameters';

/** The run sheet of the site’s open launch; null where none is open. */
export default defineEventHandler((event) => siteSheet(idOf(event)));
