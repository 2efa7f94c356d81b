import { historyOf } from '../../../audits/history';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => historyOf(idOf(event)));
