import { FixesDto } from '../../fixes/dto';
import { listFixes } from '../../fixes/lists';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) =>
  listFixes(await parseAs(FixesDto, getQuery(event)), event.context.person.id),
);
