import { LIMITS, readJson } from '../../platform/http/body';
import { HostProfileDto } from '#core/entry/host-profile';
import { parseAs } from '../../platform/http/validation';
import { makeProfile } from '../../hosts/host-profiles';

export default defineEventHandler(async (event) => {
  const profile = { ...(await parseAs(HostProfileDto, await readJson(event, LIMITS.document))) };
  return { id: await makeProfile(profile, event.context.person.name) };
});
