import { CompareDto, picturePairs } from '#server/comparing';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  const { first, second } = await parseAs(CompareDto, getQuery(event));
  return picturePairs(idOf(event), first, second);
});
