import { idOf } from '#server/platform/http/route-parameters';
import { edition } from '#server/reports';

export default defineEventHandler((event) => edition(idOf(event)));
