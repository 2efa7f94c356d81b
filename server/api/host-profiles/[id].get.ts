import { idOf } from '#server/platform/http/route-parameters';
import { profileDetail } from '#server/reads/host-profiles';

export default defineEventHandler((event) => profileDetail(idOf(event)));
