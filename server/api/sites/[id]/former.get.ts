import { formerAddresses } from '#server/launch';
import { idOf } from '#server/platform/http/route-parameters';

/** Former addresses with where they are likely to lead. */
export default defineEventHandler((event) => formerAddresses(idOf(event)));
