import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { saveDraft, DraftDto } from '#server/reports';

export default defineEventHandler(async (event) => {
  const body = await parseAs(DraftDto, await readJson(event));
  return saveDraft(idOf(event), body, event.context.person.name);
});
