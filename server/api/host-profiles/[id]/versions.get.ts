import { profileVersions } from '../../../hosts/host-profiles';
import { afterVersion, idOf } from '../../../platform/http/route-parameters';

export default defineEventHandler((event) => profileVersions(idOf(event), afterVersion(event)));
