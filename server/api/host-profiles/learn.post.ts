import { LIMITS, readJson } from '../../platform/http/body';
import { LearnDto } from '../../checklists/dto';
import { untilCallerLeaves } from '../../platform/http/caller-left';
import { parseAs } from '../../platform/http/validation';
import { learnFrom } from '../../hosts/host-profiles';

export default defineEventHandler(async (event) => {
  const { url, profile } = await parseAs(LearnDto, await readJson(event, LIMITS.document));
  return learnFrom(url, profile, event.context.person.name, untilCallerLeaves(event));
});
