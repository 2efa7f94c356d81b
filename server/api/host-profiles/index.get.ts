import { listProfiles } from '#server/reads/host-profiles';

export default defineEventHandler(() => listProfiles());
