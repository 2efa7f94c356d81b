import { ReadSiteDto } from '../dto/sites';
import { parseAs } from '../dto/validation';
import { readFromSite } from '../services/reading';

export default defineEventHandler(async (event) =>
  readFromSite((await parseAs(ReadSiteDto, await readBody(event))).url),
);
