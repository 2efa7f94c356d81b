import { ViewDto } from '../../people/dto';
import { saveView } from '../../people/views';
import { readJson } from '../../platform/http/body';
import { parseAs } from '../../platform/http/validation';

export default defineEventHandler(async (event) => {
  await saveView(event.context.person.id, await parseAs(ViewDto, await readJson(event)));
  return { ok: true };
});
