import { FixesDto } from '../../fixes/dto';
import { listFaults } from '../../fixes/lists';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) =>
  listFaults(await parseAs(FixesDto, getQuery(event)), event.context.person.id),
);
