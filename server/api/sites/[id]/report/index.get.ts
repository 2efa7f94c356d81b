import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { composed, draftOf } from '../../../../reports/composing';
import { ShownOfDto } from '../../../../reports/dto';

/** The report as it would be published now, and what was chosen for it. */
export default defineEventHandler(async (event) => {
  const { environment } = await parseAs(ShownOfDto, getQuery(event));
  const id = idOf(event);
  return { ...(await composed(id, environment)), draft: await draftOf(id) };
});
