import { readJson } from '../../../platform/http/body';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';
import { RemarkFixDto } from '../../../reports/dto';
import { remarkToFix } from '../../../reports/remarks';

export default defineEventHandler(async (event) => {
  const { severity } = await parseAs(RemarkFixDto, await readJson(event));
  return remarkToFix(idOf(event), severity, event.context.person.name);
});
