import { blanksIn } from '../../../audits/blanks';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => blanksIn(idOf(event)));
