import type { HostProfile } from '#core/facts/host-profile';
import { LearnDto } from '../../dto/rules';
import { parseAs } from '../../dto/validation';
import { learnFrom } from '../../services/host-profiles';

export default defineEventHandler(async (event) => {
  const { url, profile } = await parseAs(LearnDto, await readBody(event));
  return learnFrom(url, profile as HostProfile);
});
