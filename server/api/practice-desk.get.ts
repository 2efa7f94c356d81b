import { parseAs } from '../platform/http/validation';
import { DeskOfDto } from '../practice/dto';
import { practiceDesk } from '../practice/practice';

export default defineEventHandler(async (event) => {
  const { site } = await parseAs(DeskOfDto, getQuery(event));
  return practiceDesk(site);
});
