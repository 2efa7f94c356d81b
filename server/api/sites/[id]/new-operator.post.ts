import { compareNewOperator } from '../../../launch/new-operator';
import { idOf } from '../../../platform/http/route-parameters';

/** Asks the servers that will take the zone over. */
export default defineEventHandler((event) => compareNewOperator(idOf(event)));
