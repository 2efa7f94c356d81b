import { idOf } from '#server/platform/http/route-parameters';
import { foundPictures } from '#server/pictures';

export default defineEventHandler((event) => foundPictures(idOf(event)));
