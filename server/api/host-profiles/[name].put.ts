import { HostProfileDto } from '#core/entry/host-profile';
import { parseAs } from '../../dto/validation';
import { saveProfile } from '../../services/host-profiles';
import { nameOf } from '../../services/route-parameters';

export default defineEventHandler(async (event) =>
  saveProfile(
    nameOf(event),
    { ...(await parseAs(HostProfileDto, await readBody(event))) },
    event.context.person.name,
  ),
);
