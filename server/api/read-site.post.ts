import { ReadSiteDto } from '../sites/dto';
import { parseAs } from '../platform/http/validation';
import { readFromSite } from '../sites/reading';

export default defineEventHandler(async (event) =>
  readFromSite((await parseAs(ReadSiteDto, await readBody(event))).url),
);
