import { idOf } from '../../../platform/http/route-parameters';
import { edition } from '../../../reports/composing';

export default defineEventHandler((event) => edition(idOf(event)));
