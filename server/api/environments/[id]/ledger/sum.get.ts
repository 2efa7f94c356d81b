import { scoreSum } from '#server/reads/ledger';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => scoreSum(idOf(event)));
