import { fixDetail } from '#server/reads/fix-detail';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => fixDetail(idOf(event)));
