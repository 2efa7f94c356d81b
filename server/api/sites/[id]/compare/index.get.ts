import { compareAudits } from '../../../../comparing/comparing';
import { CompareDto } from '../../../../comparing/dto';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { first, second } = await parseAs(CompareDto, getQuery(event));
  return compareAudits(idOf(event), first, second);
});
