import { picturesOf } from '#server/pictures';
import { idOf } from '#server/platform/http/route-parameters';

export default defineEventHandler((event) => picturesOf(idOf(event)));
