import { PlacesDto } from '#server/audits';
import { checkOf, idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { morePlaces } from '#server/reads/ledger';

export default defineEventHandler(async (event) => {
  const { from } = await parseAs(PlacesDto, getQuery(event));
  return morePlaces(idOf(event), checkOf(event), from);
});
