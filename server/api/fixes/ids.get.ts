import { FixesDto } from '../../fixes/dto';
import { fixIds } from '../../fixes/lists';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) =>
  fixIds(await parseAs(FixesDto, getQuery(event)), event.context.person.id),
);
