import { FormerDto } from '../../../launch/dto';
import { formerAddresses } from '../../../launch/former';
import { idOf } from '../../../platform/http/route-parameters';
import { parseAs } from '../../../platform/http/validation';

/** Former addresses with where they are likely to lead. */
export default defineEventHandler(async (event) => {
  const { own } = await parseAs(FormerDto, getQuery(event));
  return formerAddresses(idOf(event), own);
});
