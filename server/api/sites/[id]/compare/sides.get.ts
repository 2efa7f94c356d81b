import { sidesOf } from '../../../../comparing/comparing';
import { idOf } from '../../../../platform/http/route-parameters';

/** Audits that can be compared. */
export default defineEventHandler((event) => sidesOf(idOf(event)));
