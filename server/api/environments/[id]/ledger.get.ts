import { ledger } from '../../../audits/ledger';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => ledger(idOf(event)));
