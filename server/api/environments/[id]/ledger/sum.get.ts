import { idOf } from '#server/platform/http/route-parameters';
import { scoreSum } from '#server/reads/ledger';

export default defineEventHandler((event) => scoreSum(idOf(event)));
