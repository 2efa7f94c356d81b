import { formerAddresses } from '../../../launch/former';
import { idOf } from '../../../platform/http/route-parameters';

/** Former addresses with where they are likely to lead. */
export default defineEventHandler((event) => formerAddresses(idOf(event)));
