import { readJson } from '#server/platform/http/body';
import { idOf } from '#server/platform/http/route-parameters';
import { parseAs } from '#server/platform/http/validation';
import { addContact, ContactDto } from '#server/sites';

export default defineEventHandler(async (event) =>
  addContact(idOf(event), await parseAs(ContactDto, await readJson(event))),
);
