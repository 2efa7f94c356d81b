import { idOf } from '#server/platform/http/route-parameters';
import { fixDetail } from '#server/reads/fix-detail';

export default defineEventHandler((event) => fixDetail(idOf(event)));
