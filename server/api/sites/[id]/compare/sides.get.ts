import { sidesOf } from '#server/comparing';
import { idOf } from '#server/platform/http/route-parameters';

/** Audits that can be compared. */
export default defineEventHandler((event) => sidesOf(idOf(event)));
