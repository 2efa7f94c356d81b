import { FixesDto } from '#server/fixes';
import { listFixes } from '#server/reads/fixes';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  listFixes(await parseAs(FixesDto, getQuery(event)), event.context.person.id),
);
