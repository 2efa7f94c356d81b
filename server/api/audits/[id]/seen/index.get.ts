import { seenPages } from '#server/audits';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => seenPages(idOf(event)));
