import { FixesDto } from '#server/fixes';
import { parseAs } from '#server/platform/http/validation';
import { listFixes } from '#server/reads/fixes';

export default defineEventHandler(async (event) =>
  listFixes(await parseAs(FixesDto, getQuery(event)), event.context.person.id),
);
