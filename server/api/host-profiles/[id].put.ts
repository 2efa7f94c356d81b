import { HostProfileDto } from '#core/entry/host-profile';
import { changeProfile } from '#server/audits';
import { LIMITS, readJson } from '#server/platform/http/body';
import { requiredVersion, idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  changeProfile(
    idOf(event),
    { ...(await parseAs(HostProfileDto, await readJson(event, LIMITS.document))) },
    event.context.person.name,
    requiredVersion(event),
  ),
);
