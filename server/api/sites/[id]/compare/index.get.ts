import { compareAudits, CompareDto } from '#server/comparing';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { first, second } = await parseAs(CompareDto, getQuery(event));
  return compareAudits(idOf(event), first, second);
});
