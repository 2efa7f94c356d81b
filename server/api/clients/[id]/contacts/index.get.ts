import { idOf } from '#server/platform/http/route-parameters';
import { contactsOf } from '#server/sites';

export default defineEventHandler((event) => contactsOf(idOf(event)));
