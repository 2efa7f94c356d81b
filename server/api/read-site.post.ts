import { readJson } from '../platform/http/body';
import { untilCallerLeaves } from '../platform/http/caller-left';
import { ReadSiteDto } from '../sites/dto';
import { parseAs } from '../platform/http/validation';
import { readFromSite } from '../sites/reading';

export default defineEventHandler(async (event) => {
  const wanted = await parseAs(ReadSiteDto, await readJson(event));
  return readFromSite(wanted, event.context.person.name, untilCallerLeaves(event));
});
