import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';
import { DeskDto, changeDesk } from '#server/practice';

export default defineEventHandler(async (event) => {
  const { site, change } = await parseAs(DeskDto, await readJson(event));
  await changeDesk(site, change);
  return { ok: true };
});
