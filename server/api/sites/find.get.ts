import { FindSitesDto } from '../../sites/dto';
import { findSites } from '../../sites/roster';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) => findSites(await parseAs(FindSitesDto, getQuery(event))));
