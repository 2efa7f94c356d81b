import { FixesChangeDto, changeFixes } from '#server/fixes';
import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) =>
  changeFixes(await parseAs(FixesChangeDto, await readJson(event)), event.context.person),
);
