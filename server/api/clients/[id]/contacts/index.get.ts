import { idOf } from '../../../../platform/http/route-parameters';
import { contactsOf } from '../../../../reports/contacts';

export default defineEventHandler((event) => contactsOf(idOf(event)));
