import { HostProfileDto } from '#core/entry/host-profile';
import { parseAs } from '../../platform/http/validation';
import { makeProfile } from '../../hosts/host-profiles';

export default defineEventHandler(async (event) => {
  const profile = { ...(await parseAs(HostProfileDto, await readBody(event))) };
  return { id: await makeProfile(profile, event.context.person.name) };
});
