import { FixesDto } from '#server/fixes';
import { parseAs } from '#server/platform/http/validation';
import { fixIds } from '#server/reads/fixes';

export default defineEventHandler(async (event) =>
  fixIds(await parseAs(FixesDto, getQuery(event)), event.context.person.id),
);
