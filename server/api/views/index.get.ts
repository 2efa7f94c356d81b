import { ScreenDto } from '../../people/dto';
import { viewsOf } from '../../people/views';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) =>
  viewsOf(event.context.person.id, (await parseAs(ScreenDto, getQuery(event))).screen),
);
