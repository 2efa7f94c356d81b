import { profileDetail } from '#server/reads/host-profiles';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => profileDetail(idOf(event)));
