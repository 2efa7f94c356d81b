import { compareNewOperator } from '#server/launch';
import { idOf } from '#server/platform/http/route-parameters';

/** Asks the servers that will take the zone over. */
export default defineEventHandler((event) => compareNewOperator(idOf(event)));
