import { RosterDto } from '#server/sites';
import { shownEnvironments } from '#server/reads/roster';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  shownEnvironments(await parseAs(RosterDto, getQuery(event))),
);
