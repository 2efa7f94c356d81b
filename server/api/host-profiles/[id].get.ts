import { profileDetail } from '../../hosts/host-profiles';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler((event) => profileDetail(idOf(event)));
