import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { RemarkFixDto, remarkToFix } from '#server/reports';

export default defineEventHandler(async (event) => {
  const { severity } = await parseAs(RemarkFixDto, await readJson(event));
  return remarkToFix(idOf(event), severity, event.context.person.name);
});
