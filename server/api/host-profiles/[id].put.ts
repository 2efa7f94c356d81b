import { HostProfileDto } from '#core/entry/host-profile';
import { parseAs } from '../../platform/http/validation';
import { saveProfile } from '../../hosts/host-profiles';
import { idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) =>
  saveProfile(
    idOf(event),
    { ...(await parseAs(HostProfileDto, await readBody(event))) },
    event.context.person.name,
  ),
);
