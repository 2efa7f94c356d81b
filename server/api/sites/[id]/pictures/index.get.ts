import { idOf } from '#server/platform/http/route-parameters';
import { picturesOf } from '#server/pictures';

export default defineEventHandler((event) => picturesOf(idOf(event)));
