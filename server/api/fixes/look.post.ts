import { checkAgain, FixIdsDto } from '#server/fixes';
import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  checkAgain((await parseAs(FixIdsDto, await readJson(event))).ids, event.context.person.name),
);
