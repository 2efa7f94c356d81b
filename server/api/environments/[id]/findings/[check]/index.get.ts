import { checkOf, idOf } from '#server/platform/http/route-parameters';
import { findingInFull } from '#server/reads/ledger';

export default defineEventHandler((event) => findingInFull(idOf(event), checkOf(event)));
