import { FixesDto } from '#server/fixes';
import { listFaults } from '#server/reads/fixes';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  listFaults(await parseAs(FixesDto, getQuery(event)), event.context.person.id),
);
