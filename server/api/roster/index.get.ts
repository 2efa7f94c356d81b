import { parseAs } from '#server/platform/http/validation';
import { rosterWindow } from '#server/reads/roster';
import { RosterDto } from '#server/sites';

export default defineEventHandler(async (event) => rosterWindow(await parseAs(RosterDto, getQuery(event))));
