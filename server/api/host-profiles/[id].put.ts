import { LIMITS, readJson } from '#server/platform/http/body';
import { HostProfileDto } from '#core/entry/host-profile';
import { parseAs } from '#server/platform/http/validation';
import { saveProfile } from '#server/hosts';
import { requiredVersion, idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler(async (event) =>
  saveProfile(
    idOf(event),
    { ...(await parseAs(HostProfileDto, await readJson(event, LIMITS.document))) },
    event.context.person.name,
    requiredVersion(event),
  ),
);
