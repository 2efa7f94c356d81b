import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { changeContact, ContactDto } from '#server/sites';

export default defineEventHandler(async (event) => {
  await changeContact(idOf(event), await parseAs(ContactDto, await readJson(event)));
  return { ok: true };
});
