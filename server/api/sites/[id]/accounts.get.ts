import { accountsOf } from '#server/launch';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => accountsOf(idOf(event)));
