import { CompareDto } from '../../../../comparing/dto';
import { picturePairs } from '../../../../comparing/picture-pairs';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { first, second } = await parseAs(CompareDto, getQuery(event));
  return picturePairs(idOf(event), first, second);
});
