import { parseAs } from '#server/platform/http/validation';
import { DeskOfDto, practiceDesk } from '#server/practice';

export default defineEventHandler(async (event) => {
  const { site } = await parseAs(DeskOfDto, getQuery(event));
  return practiceDesk(site);
});
