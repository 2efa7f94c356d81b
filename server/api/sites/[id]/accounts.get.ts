import { accountsOf } from '../../../launch/accounts';
import { idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => accountsOf(idOf(event)));
