import { FindSitesDto } from '#server/sites';
import { findSites } from '#server/reads/roster';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => findSites(await parseAs(FindSitesDto, getQuery(event))));
