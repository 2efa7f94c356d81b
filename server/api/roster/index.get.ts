import { RosterDto } from '../../sites/dto';
import { rosterWindow } from '../../sites/roster';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) => rosterWindow(await parseAs(RosterDto, getQuery(event))));
