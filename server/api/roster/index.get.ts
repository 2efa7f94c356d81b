import { RosterDto } from '#server/sites';
import { rosterWindow } from '#server/reads/roster';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => rosterWindow(await parseAs(RosterDto, getQuery(event))));
