import { lookWhetherGone } from '../../audits/looking';
import { FixIdsDto } from '../../fixes/dto';
import { readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) =>
  lookWhetherGone((await parseAs(FixIdsDto, await readJson(event))).ids, event.context.person.name),
);
