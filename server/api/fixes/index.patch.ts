import { FixesChangeDto } from '../../fixes/dto';
import { changeFixes } from '../../fixes/fixes';
import { readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) =>
  changeFixes(await parseAs(FixesChangeDto, await readJson(event)), event.context.person),
);
