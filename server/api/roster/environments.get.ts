import { RosterDto } from '../../sites/dto';
import { shownEnvironments } from '../../sites/roster';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) =>
  shownEnvironments(await parseAs(RosterDto, getQuery(event))),
);
