import { recordsOf } from '#server/pages';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => recordsOf(idOf(event)));
