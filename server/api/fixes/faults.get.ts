import { FixesDto } from '#server/fixes';
import { parseAs } from '#server/platform/http/validation';
import { listFaults } from '#server/reads/fixes';

export default defineEventHandler(async (event) =>
  listFaults(await parseAs(FixesDto, getQuery(event)), event.context.person.id),
);
