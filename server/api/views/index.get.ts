import { ScreenDto, viewsOf } from '#server/people';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  viewsOf(event.context.person.id, (await parseAs(ScreenDto, getQuery(event))).screen),
);
