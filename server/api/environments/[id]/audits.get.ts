import { historyOf } from '../../../services/history';
import { idOf } from '../../../services/route-parameters';

export default defineEventHandler((event) => historyOf(idOf(event)));
