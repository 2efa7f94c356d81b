import { idOf } from '../../platform/http/route-parameters';
import { endContact } from '../../reports/contacts';

export default defineEventHandler(async (event) => {
  await endContact(idOf(event));
  return { ok: true };
});
