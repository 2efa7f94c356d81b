import { ledger } from '../../../services/ledger';
import { idOf } from '../../../services/route-parameters';

export default defineEventHandler((event) => ledger(idOf(event)));
