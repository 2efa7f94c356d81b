import { HostProfileDto } from '#core/entry/host-profile';
import { createProfile } from '#server/hosts';
import { LIMITS, readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const profile = { ...(await parseAs(HostProfileDto, await readJson(event, LIMITS.document))) };
  return { id: await createProfile(profile, event.context.person.name) };
});
