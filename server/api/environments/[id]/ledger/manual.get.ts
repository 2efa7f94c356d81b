import { manualChecks } from '../../../../audits/ledger';
import { idOf } from '../../../../platform/http/route-parameters';

export default defineEventHandler((event) => manualChecks(idOf(event)));
