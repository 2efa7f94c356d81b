import { findingInFull } from '#server/reads/ledger';
import { checkOf, idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => findingInFull(idOf(event), checkOf(event)));
