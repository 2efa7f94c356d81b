import type { HostProfile } from '#core/facts/host-profile';
import { LearnDto } from '../../checklists/dto';
import { parseAs } from '../../platform/http/validation';
import { learnFrom } from '../../hosts/host-profiles';

export default defineEventHandler(async (event) => {
  const { url, profile } = await parseAs(LearnDto, await readBody(event));
  return learnFrom(url, profile as HostProfile);
});
