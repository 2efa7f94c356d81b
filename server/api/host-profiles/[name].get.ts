import { profileDetail } from '../../hosts/host-profiles';
import { nameOf } from '../../platform/http/route-parameters';

export default defineEventHandler((event) => profileDetail(nameOf(event)));
