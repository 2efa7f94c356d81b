import { readJson } from '../platform/http/body';
import { parseAs } from '../platform/http/validation';
import { DeskDto } from '../practice/dto';
import { changeDesk } from '../practice/practice';

export default defineEventHandler(async (event) => {
  const { site, change } = await parseAs(DeskDto, await readJson(event));
  await changeDesk(site, change);
  return { ok: true };
});
