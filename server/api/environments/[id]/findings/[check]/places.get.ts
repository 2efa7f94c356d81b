import { PlacesDto } from '../../../../../audits/dto';
import { morePlaces } from '../../../../../audits/ledger';
import { checkOf, idOf } from '../../../../../platform/http/route-parameters';
import { parseAs } from '../../../../../platform/http/validation';

export default defineEventHandler(async (event) => {
  const { from } = await parseAs(PlacesDto, getQuery(event));
  return morePlaces(idOf(event), checkOf(event), from);
});
