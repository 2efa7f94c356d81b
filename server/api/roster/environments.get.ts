import { parseAs } from '#server/platform/http/validation';
import { shownEnvironments } from '#server/reads/roster';
import { RosterDto } from '#server/sites';

export default defineEventHandler(async (event) =>
  shownEnvironments(await parseAs(RosterDto, getQuery(event))),
);
