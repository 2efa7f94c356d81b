import { fixDetail } from '../../fixes/fixes';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler((event) => fixDetail(idOf(event)));
