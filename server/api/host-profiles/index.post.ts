import { HostProfileDto } from '#core/entry/host-profile';
import { parseAs } from '../../platform/http/validation';
import { makeProfile } from '../../hosts/host-profiles';

export default defineEventHandler(async (event) => {
  await makeProfile({ ...(await parseAs(HostProfileDto, await readBody(event))) }, event.context.person.name);
  return { ok: true };
});
