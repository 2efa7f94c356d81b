/** What other subjects and routes may use of hosts. */
export {
  createProfile,
  deleteProfile,
  learnFrom,
  newestVersions,
  profileVersions,
  saveProfile,
  usesOfProfile,
} from './host-profiles';
export { allProfiles, newestProfile, profileIdOf, profilesByIds } from './known-profiles';
