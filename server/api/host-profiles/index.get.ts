import { listProfiles } from '../../hosts/host-profiles';

export default defineEventHandler(() => listProfiles());
