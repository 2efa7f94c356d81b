import { idOf } from '#server/platform/http/route-parameters';
import { manualChecks } from '#server/reads/ledger';

export default defineEventHandler((event) => manualChecks(idOf(event)));
