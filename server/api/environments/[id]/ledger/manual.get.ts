import { manualChecks } from '#server/reads/ledger';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => manualChecks(idOf(event)));
