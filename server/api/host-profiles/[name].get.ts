import { profileDetail } from '../../services/host-profiles';
import { nameOf } from '../../services/route-parameters';

export default defineEventHandler((event) => profileDetail(nameOf(event)));
