import { readJson } from '../../../../platform/http/body';
import { idOf } from '../../../../platform/http/route-parameters';
import { parseAs } from '../../../../platform/http/validation';
import { addContact } from '../../../../reports/contacts';
import { ContactDto } from '../../../../reports/dto';

export default defineEventHandler(async (event) =>
  addContact(idOf(event), await parseAs(ContactDto, await readJson(event))),
);
