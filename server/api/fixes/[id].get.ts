import { fixDetail } from '../../services/fixes';
import { idOf } from '../../services/route-parameters';

export default defineEventHandler((event) => fixDetail(idOf(event)));
