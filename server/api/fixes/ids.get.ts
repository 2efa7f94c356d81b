import { FixesDto } from '#server/fixes';
import { fixIds } from '#server/reads/fixes';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  fixIds(await parseAs(FixesDto, getQuery(event)), event.context.person.id),
);
