import { scoreSum } from '../../../../audits/ledger';
import { idOf } from '../../../../platform/http/route-parameters';

export default defineEventHandler((event) => scoreSum(idOf(event)));
