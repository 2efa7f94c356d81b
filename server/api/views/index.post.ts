import { ViewDto, saveView } from '#server/people';
import { readJson } from '#server/platform/http/body';
import { parseAs } from '#server/platform/http/validation';

export default defineEventHandler(async (event) => {
  await saveView(event.context.person.id, await parseAs(ViewDto, await readJson(event)));
  return { ok: true };
});
