import { parseAs } from '#server/platform/http/validation';
import { findSites } from '#server/reads/roster';
import { FindSitesDto } from '#server/sites';

export default defineEventHandler(async (event) => findSites(await parseAs(FindSitesDto, getQuery(event))));
