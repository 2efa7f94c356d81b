import { LIMITS, readJson } from '../../platform/http/body';
import { HostProfileDto } from '#core/entry/host-profile';
import { parseAs } from '../../platform/http/validation';
import { saveProfile } from '../../hosts/host-profiles';
import { requiredVersion, idOf } from '../../platform/http/route-parameters';

export default defineEventHandler(async (event) =>
  saveProfile(
    idOf(event),
    { ...(await parseAs(HostProfileDto, await readJson(event, LIMITS.document))) },
    event.context.person.name,
    requiredVersion(event),
  ),
);
