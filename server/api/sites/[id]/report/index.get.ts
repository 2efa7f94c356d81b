import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { composed, draftOf, ShownOfDto } from '#server/reports';

/** The report as it would be published now, and what was chosen for it. */
export default defineEventHandler(async (event) => {
  const { environment } = await parseAs(ShownOfDto, getQuery(event));
  const id = idOf(event);
  return { ...(await composed(id, environment)), draft: await draftOf(id) };
});
