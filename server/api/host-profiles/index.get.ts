import { listProfiles } from '../../services/host-profiles';

export default defineEventHandler(() => listProfiles());
