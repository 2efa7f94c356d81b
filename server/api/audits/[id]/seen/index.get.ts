import { seenPages } from '../../../../audits/seen';
import { idOf } from '../../../../platform/http/route-parameters';

export default defineEventHandler((event) => seenPages(idOf(event)));
