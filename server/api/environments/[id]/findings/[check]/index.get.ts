import { findingInFull } from '../../../../../audits/ledger';
import { checkOf, idOf } from '../../../../../platform/http/route-parameters';

export default defineEventHandler((event) => findingInFull(idOf(event), checkOf(event)));
